import { Guard } from './access/guard.ts'
import { Accounts } from './accounts/accounts.ts'
import { SignInLimits } from './accounts/signInLimits.ts'
import { Book } from './book/book.ts'
import { Folders } from './folders/folders.ts'
import { Media } from './media/media.ts'
import { Notices } from './notices/notices.ts'
import { Pieces } from './pieces/pieces.ts'
import type { Platform } from './platform/platform.ts'
import { Portfolio } from './portfolio/portfolio.ts'
import { Review } from './review/review.ts'
import { School } from './school/school.ts'
import { Sharing } from './sharing/sharing.ts'
import { Tasks } from './tasks/tasks.ts'
import type { Pool } from 'pg'

/** What Nibquill can do, put together once. */
export function openCapabilities(platform: Platform, pool: Pool) {
  const guard = new Guard(platform)
  const school = new School(platform)
  const pieces = new Pieces(platform, guard, school)
  const sharing = new Sharing(platform, guard)
  return {
    guard,
    school,
    pieces,
    sharing,
    accounts: new Accounts(platform, new SignInLimits(pool)),
    folders: new Folders(platform),
    tasks: new Tasks(platform),
    media: new Media(platform),
    review: new Review(platform, guard, pieces),
    notices: new Notices(platform),
    portfolio: new Portfolio(platform, school),
    book: new Book(platform, sharing),
  }
}
export type Capabilities = ReturnType<typeof openCapabilities>
