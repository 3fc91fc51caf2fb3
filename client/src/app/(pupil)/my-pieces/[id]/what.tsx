export { WhatIsItScreen as default } from '../../../../making/WhatIsItScreen'
