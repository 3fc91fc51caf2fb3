export { SecretsScreen as default } from '../../../accounts/SecretsScreen'
