import { AuditRow, NameCardRow, PersonRow, SessionRow } from '../accounts/rows.ts'
import { BookRow } from '../book/rows.ts'
import { FolderRow, StrandRow } from '../folders/rows.ts'
import { MediaRow } from '../media/rows.ts'
import { NewsRow } from '../notices/rows.ts'
import { PartRow, PieceMakerRow, PieceRow, PieceVersionRow, VersionPartRow } from '../pieces/rows.ts'
import { ChapterRow, PickRow } from '../portfolio/rows.ts'
import { DecisionRow } from '../review/rows.ts'
import { ClassRow, ConsentRow, EnrolmentRow, GuardianRow, SchoolRow, SchoolYearRow, TermRow } from '../school/rows.ts'
import { InvitationRow, PageLinkRow } from '../sharing/rows.ts'
import { TaskRow } from '../tasks/rows.ts'

/** Every table, for the one connection that knows them all. */
export const ROWS = [
  AuditRow, BookRow, ChapterRow, ClassRow, ConsentRow, DecisionRow, EnrolmentRow, FolderRow, GuardianRow, InvitationRow, MediaRow,
  NameCardRow, NewsRow, PageLinkRow, PartRow, PersonRow, PickRow, PieceMakerRow, PieceRow, PieceVersionRow, SchoolRow,
  SchoolYearRow, SessionRow, StrandRow, TaskRow, TermRow, VersionPartRow,
] // prettier-ignore
