import { Gate } from '../accounts/Gate'

export const ParentLayout = () => <Gate roles={['parent']} />
