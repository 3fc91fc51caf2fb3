export { ForEveryoneScreen as default } from '../../pieces/ForEveryoneScreen'
