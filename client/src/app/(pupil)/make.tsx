export { MakePhotoScreen as default } from '../../pieces/MakePhotoScreen'
