import {
  CardSheetRow,
  DoorCardRow,
  DoorRow,
  MailCodeRow,
  NameCardRow,
  OneTimeSecretRow,
  PasswordLinkRow,
  PersonRow,
  PictureSecretRow,
  SessionRow,
  SpareCodeRow,
  TabletRow,
} from '../accounts/rows.ts'
import { AuditRow } from './audit.ts'
import { BookRow } from '../book/rows.ts'
import { FolderClassRow, FolderRow, StrandRow } from '../folders/rows.ts'
import { MediaRow, UploadRow } from '../media/rows.ts'
import { MailRow } from '../mail/rows.ts'
import { NewsRow, NoticeMediaRow, NoticeRow, NoticeSeenRow } from '../notices/rows.ts'
import {
  ClassPieceRow,
  PartRow,
  PieceMakerRow,
  PieceRow,
  PieceVersionRow,
  VersionMakerRow,
  VersionPartRow,
} from '../pieces/rows.ts'
import { ChapterRow, PickRow } from '../portfolio/rows.ts'
import { DecisionRow } from '../review/rows.ts'
import {
  ClassListRow,
  ClassRow,
  ClosedDayRow,
  ConsentRow,
  EnrolmentRow,
  GuardianRow,
  RollOverRow,
  SchoolRow,
  SchoolYearRow,
  TermRow,
} from '../school/rows.ts'
import { GuardianRequestRow, InvitationRow, PageLinkRow } from '../sharing/rows.ts'
import {
  NudgeRow,
  TaskMediaRow,
  TaskPupilRow,
  TaskRow,
  TaskTickRow,
  UnitRow,
} from '../tasks/rows.ts'

/** Every table, for the one connection that knows them all. */
export const ROWS = [
  AuditRow,
  CardSheetRow,
  DoorCardRow,
  DoorRow,
  MailCodeRow,
  OneTimeSecretRow,
  PictureSecretRow,
  SpareCodeRow,
  TabletRow,
  BookRow,
  ChapterRow,
  ClassListRow,
  ClassPieceRow,
  ClassRow,
  ClosedDayRow,
  FolderClassRow,
  MailRow,
  NoticeMediaRow,
  NoticeRow,
  NoticeSeenRow,
  NudgeRow,
  PasswordLinkRow,
  RollOverRow,
  TaskMediaRow,
  TaskPupilRow,
  TaskTickRow,
  UnitRow,
  ConsentRow,
  DecisionRow,
  EnrolmentRow,
  FolderRow,
  GuardianRow,
  InvitationRow,
  MediaRow,
  NameCardRow,
  NewsRow,
  PageLinkRow,
  PartRow,
  PersonRow,
  PickRow,
  PieceMakerRow,
  PieceRow,
  PieceVersionRow,
  SchoolRow,
  SchoolYearRow,
  SessionRow,
  StrandRow,
  TaskRow,
  TermRow,
  VersionPartRow,
  VersionMakerRow,
  GuardianRequestRow,
  UploadRow,
]
