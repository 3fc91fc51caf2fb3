export { SecretsScreen as default } from '../../../door/SecretsScreen'
