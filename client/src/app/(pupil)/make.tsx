export { MakePhotoScreen as default } from '../../making/MakePhotoScreen'
