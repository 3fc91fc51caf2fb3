export { NotFoundScreen as default } from '../kit/NotFoundScreen'
