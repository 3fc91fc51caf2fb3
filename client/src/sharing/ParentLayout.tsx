import { Gate } from '../places'

export const ParentLayout = () => <Gate roles={['parent']} />
