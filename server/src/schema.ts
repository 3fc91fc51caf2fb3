import { FirstRoad1700000000000 } from './migrations/00-firstRoad.ts'
import { SettingUp1700000000001 } from './migrations/01-settingUp.ts'
import { Arriving1700000000002 } from './migrations/02-arriving.ts'
import { Making1700000000003 } from './migrations/03-making.ts'
import { CardSheets1700000000004 } from './migrations/04-cardSheets.ts'
import { SafeGround1700000000005 } from './migrations/05-safeGround.ts'
import { PartKinds1700000000006 } from './migrations/06-partKinds.ts'
import { HandingIn1700000000007 } from './migrations/07-handingIn.ts'
import { Afterwards1700000000008 } from './migrations/08-afterwards.ts'
import { YoungClasses1700000000009 } from './migrations/09-youngClasses.ts'
import { TakenLists1700000000010 } from './migrations/10-takenLists.ts'
import { VersionFiles1700000000011 } from './migrations/11-versionFiles.ts'
import { StarterSheets1700000000012 } from './migrations/12-starterSheets.ts'
import { Sorting1700000000013 } from './migrations/13-sorting.ts'
import { FilmsAndPages1700000000014 } from './migrations/14-filmsAndPages.ts'
import { SpokenAnswers1700000000015 } from './migrations/15-spokenAnswers.ts'
import { Transcripts1700000000016 } from './migrations/16-transcripts.ts'
import { SpokenReasons1700000000017 } from './migrations/17-spokenReasons.ts'
import { FilmOriginals1700000000018 } from './migrations/18-filmOriginals.ts'
import { NudgedPieces1700000000019 } from './migrations/19-nudgedPieces.ts'
import { SecondLooks1700000000020 } from './migrations/20-secondLooks.ts'
import { Comments1700000000021 } from './migrations/21-comments.ts'
import { MarkUps1700000000022 } from './migrations/22-markUps.ts'
import { SentenceStock1700000000023 } from './migrations/23-sentenceStock.ts'
import { MarkedBooks1700000000024 } from './migrations/24-markedBooks.ts'
import { FiledBecause1700000000025 } from './migrations/25-filedBecause.ts'
import { OwnFolders1700000000026 } from './migrations/26-ownFolders.ts'
import { BinnedNews1700000000027 } from './migrations/27-binnedNews.ts'
import type { Schema } from './platform/database.ts'
import {
  CardSheetRow,
  DoorCardRow,
  DoorRow,
  MailCodeRow,
  NameCardRow,
  OneTimeSecretRow,
  PasswordLinkRow,
  PictureSecretRow,
  SessionRow,
  SpareCodeRow,
  TabletRow,
} from './accounts/rows.ts'
import { PersonRow } from './school/rows.ts'
import { AuditRow } from './platform/audit.ts'
import { BookRow } from './book/rows.ts'
import { CommentRow, PrivateWordRow } from './comments/rows.ts'
import { FolderClassRow, FolderRow, KeptInRow, StrandRow } from './folders/rows.ts'
import { MediaFormRow, MediaRow, UploadRow } from './media/rows.ts'
import { MailRow } from './mail/rows.ts'
import { NewsRow, NoticeMediaRow, NoticeRow, NoticeSeenRow } from './notices/rows.ts'
import {
  ClassPieceRow,
  PartFileRow,
  PartRow,
  PieceMakerRow,
  PieceRow,
  PieceVersionRow,
  VersionFileRow,
  VersionMakerRow,
  VersionPartRow,
} from './pieces/rows.ts'
import { ChapterRow, PickRow } from './portfolio/rows.ts'
import {
  DecisionRow,
  MarkUpPictureRow,
  MarkUpRow,
  SecondLookRow,
  SentenceStockRow,
} from './review/rows.ts'
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
} from './school/rows.ts'
import { GuardianRequestRow, PageLinkRow } from './sharing/rows.ts'
import { InvitationRow } from './accounts/rows.ts'
import {
  NudgeRow,
  TaskMediaRow,
  TaskPupilRow,
  TaskRow,
  TaskSheetRow,
  TaskTickRow,
  UnitRow,
} from './tasks/rows.ts'

const ROWS = [
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
  KeptInRow,
  MailRow,
  NoticeMediaRow,
  NoticeRow,
  NoticeSeenRow,
  NudgeRow,
  PasswordLinkRow,
  RollOverRow,
  TaskMediaRow,
  TaskPupilRow,
  TaskSheetRow,
  TaskTickRow,
  UnitRow,
  ConsentRow,
  DecisionRow,
  EnrolmentRow,
  FolderRow,
  GuardianRow,
  InvitationRow,
  MediaFormRow,
  MediaRow,
  NameCardRow,
  NewsRow,
  PageLinkRow,
  PartFileRow,
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
  VersionFileRow,
  VersionMakerRow,
  GuardianRequestRow,
  UploadRow,
  SecondLookRow,
  CommentRow,
  PrivateWordRow,
  MarkUpRow,
  MarkUpPictureRow,
  SentenceStockRow,
]

/**
 * Every table there is and how they came about, put together here: what carries the capabilities
 * knows none of them. Migrations stand in the order in which they were written; none that has
 * shipped is changed.
 */
export const SCHEMA = {
  rows: ROWS,
  migrations: [
    FirstRoad1700000000000,
    SettingUp1700000000001,
    Arriving1700000000002,
    Making1700000000003,
    CardSheets1700000000004,
    SafeGround1700000000005,
    PartKinds1700000000006,
    HandingIn1700000000007,
    Afterwards1700000000008,
    YoungClasses1700000000009,
    TakenLists1700000000010,
    VersionFiles1700000000011,
    StarterSheets1700000000012,
    Sorting1700000000013,
    FilmsAndPages1700000000014,
    SpokenAnswers1700000000015,
    Transcripts1700000000016,
    SpokenReasons1700000000017,
    FilmOriginals1700000000018,
    NudgedPieces1700000000019,
    SecondLooks1700000000020,
    Comments1700000000021,
    MarkUps1700000000022,
    SentenceStock1700000000023,
    MarkedBooks1700000000024,
    FiledBecause1700000000025,
    OwnFolders1700000000026,
    BinnedNews1700000000027,
  ],
} satisfies Schema
