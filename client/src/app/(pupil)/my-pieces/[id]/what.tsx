export { WhatIsItScreen as default } from '../../../../pieces/WhatIsItScreen'
