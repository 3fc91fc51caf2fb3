import { FolderClassRow, FolderRow, StrandRow } from '@nibquill/server/folders/rows'
import { TaskRow } from '@nibquill/server/tasks/rows'
import { v7 as newId } from 'uuid'
import { CLASS_NAMES, type ClassName, type Place, type Pupil, type Shelf } from './place.ts'
import { ROCK_POOL_EXPECTED, rockPoolSheet } from './rockPoolSheet.ts'
import { FOLDERS, TASKS } from './scenario.ts'

/** Strands and folders: some of one class, some of the whole school. */
export async function makeFolders(
  place: Place,
  pupils: Pupil[],
): Promise<Record<ClassName, Shelf>> {
  const strands = new Map<string, string>()
  for (const [position, strand] of [...new Set(FOLDERS.map(({ strand }) => strand))].entries()) {
    strands.set(strand, newId())
    await place.manager.insert(StrandRow, {
      id: strands.get(strand)!,
      schoolId: place.schoolId,
      name: strand,
      position,
    })
  }
  const shelves: Record<ClassName, Shelf> = { Heron: new Map(), Plover: new Map() }
  for (const [position, { strand, wholeSchool, ...folder }] of FOLDERS.entries()) {
    const homes = wholeSchool ? ([null] as const) : CLASS_NAMES
    for (const home of homes) {
      const row: FolderRow = {
        id: newId(),
        schoolId: place.schoolId,
        wholeSchool: home === null,
        ownerId: null,
        agreedAt: null,
        strandId: strands.get(strand)!,
        ...folder,
        pupilsFile: true,
        position,
        putAwayAt: null,
        version: 1,
      }
      await place.manager.insert(FolderRow, row)
      const classId = home && pupils.find(({ className }) => className === home)!.classId
      if (classId) await place.manager.insert(FolderClassRow, { folderId: row.id, classId })
      for (const name of home ? [home] : CLASS_NAMES) shelves[name].set(folder.name, row)
    }
  }
  return shelves
}

/** What the classes have to do just now. */
export async function makeTasks(
  place: Place,
  shelves: Record<ClassName, Shelf>,
  pupils: Pupil[],
): Promise<TaskRow[]> {
  const tasks: TaskRow[] = []
  const sheets: { name: ClassName; id: string }[] = []
  for (const name of CLASS_NAMES) {
    for (const { folder, dueInDays, dueHour, drawings: _drawings, withSheet, ...task } of TASKS[
      name
    ]) {
      const id = newId()
      if (withSheet) sheets.push({ name, id })
      tasks.push({
        id,
        classId: pupils.find(({ className }) => className === name)!.classId,
        folderId: shelves[name].get(folder)!.id,
        ...task,
        unitId: null,
        strandId: shelves[name].get(folder)!.strandId,
        steps: ['finished'],
        asks: [],
        opensAt: null,
        dueAt: place.at(dueInDays, dueHour),
        sheetExpected: null,
        sheetOffered: false,
        forAll: true,
        position: 0,
        version: 1,
        createdAt: place.at(-9, 8),
        closedAt: null,
      })
    }
  }
  await place.manager.insert(TaskRow, tasks)
  for (const { name, id } of sheets)
    await place.server.capabilities.tasks.putSheet(place.teacherOf(name), id, {
      ...{ ink: rockPoolSheet(), seenMediaId: null, expected: ROCK_POOL_EXPECTED },
    })
  return tasks
}
