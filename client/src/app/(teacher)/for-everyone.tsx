export { ForEveryoneScreen as default } from '../../classPieces/ForEveryoneScreen'
