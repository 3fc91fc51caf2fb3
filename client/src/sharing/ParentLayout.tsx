import { Gate } from '../accounts'

export const ParentLayout = () => <Gate roles={['parent']} />
