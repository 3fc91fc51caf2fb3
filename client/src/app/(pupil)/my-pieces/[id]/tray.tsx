export { IntoTrayScreen as default } from '../../../../making/IntoTrayScreen'
