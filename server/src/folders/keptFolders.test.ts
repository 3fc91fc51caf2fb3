import type { ChildWork, Folder, FolderDetail, KeptIn, Piece, Problem } from '@nibquill/contract'
import { v7 as newId } from 'uuid'
import {
  type Person,
  type SmallSchool,
  type TestServer,
  useSmallSchool,
} from '../testing/testServer.ts'

let test_: TestServer
let school: SmallSchool
useSmallSchool((opened) => ({ test: test_, school } = opened))

const makeFolder = async (name: string, more: object = {}): Promise<string> => {
  const id = newId()
  await school.teacher.ask('PUT', `/folders/${id}`, {
    ...{ name, symbol: 'bridge', colour: 'ochre', strandId: null, classIds: [school.ids.heron] },
    ...{ wholeSchool: false, parentsSee: true, pupilsFile: true, ...more },
  })
  return id
}
const makers = async (piece: Piece, makerIds: string[]) =>
  (await school.wren.ask('PUT', `/pieces/${piece.id}/makers`, { makerIds })).body
const approve = async (piece: Piece) => {
  const seen = { seenVersion: piece.version }
  const { version } = (await school.wren.ask('POST', `/pieces/${piece.id}/hand-in`, seen)).body
  const decision = { move: 'approve', message: '', seenVersion: version }
  return (await school.teacher.ask('POST', `/review/pieces/${piece.id}`, decision)).body
}
const madeTogether = async () => approve(await makers(await school.draft(), [school.ids.tomasz]))
const keep = (who: Person, piece: Pick<Piece, 'id'>, folderId: string | null) =>
  who.ask<KeptIn & Problem>('PUT', `/folders/kept/${piece.id}`, { folderId })
const kept = (who: Person, piece: Pick<Piece, 'id'>) =>
  who.ask<KeptIn & Problem>('GET', `/folders/kept/${piece.id}`)
/** Whether it lies there, as the folder, its months and the shelf tell the same. */
async function lies(who: Person, { id }: Piece, folderId: string): Promise<boolean> {
  const { pieces, months, pieceCount } = (
    await who.ask<FolderDetail>('GET', `/folders/${folderId}`)
  ).body
  const shelf = (await who.ask<Folder[]>('GET', '/folders')).body
  expect(pieceCount).toBe(pieces.length)
  expect(months.length > 0).toBe(pieces.length > 0)
  expect(shelf.find((folder) => folder.id === folderId)?.pieceCount ?? 0).toBe(pieces.length)
  return pieces.some((piece) => piece.id === id)
}

test('each keeps what they made together in a folder of their own; nobody else’s shelf changes', async () => {
  const piece = await madeTogether()
  const mine = await makeFolder('Things with claws', { parentsSee: false })
  expect((await kept(school.tomasz, piece)).body).toEqual({
    ...{ folder: null, together: true, mayChoose: true },
  })
  expect((await keep(school.tomasz, piece, mine)).body.folder).toMatchObject({
    ...{ id: mine, name: 'Things with claws' },
  })
  const { ids, parent, teacher } = school
  const { open } = ids
  expect([await lies(school.tomasz, piece, mine), await lies(school.tomasz, piece, open)]).toEqual([
    ...[true, false],
  ])
  for (const other of [school.wren, teacher])
    expect([await lies(other, piece, mine), await lies(other, piece, open)]).toEqual([false, true])
  // The teacher's folder says who sees it at home, whatever its makers' shelves look like.
  for (const id of [ids.wren, ids.tomasz])
    await teacher.ask('PUT', `/sharing/pupils/${id}/consents/sharing`, { granted: true })
  const { body } = await parent.ask<ChildWork>('GET', `/sharing/children/${ids.wren}`)
  expect(body.chapters?.flatMap(({ pieces }) => pieces).map(({ id }) => id)).toContain(piece.id)

  expect((await keep(school.tomasz, piece, null)).body.folder).toBeNull()
  expect(await lies(school.tomasz, piece, open)).toBe(true)
})

test('a folder that is put away, or not theirs any more, gives back what was kept in it', async () => {
  const piece = await madeTogether()
  const { ids, teacher, tomasz } = school
  const away = await makeFolder('Kites')
  await keep(tomasz, piece, away)
  await teacher.ask('POST', `/folders/${away}/put-away`)
  expect((await kept(tomasz, piece)).body.folder).toBeNull()
  expect(await lies(tomasz, piece, ids.open)).toBe(true)
  expect((await keep(tomasz, piece, away)).body.type).toBe('/problems/folder/not-found')

  const moved = await makeFolder('Boats')
  await keep(tomasz, piece, moved)
  await test_.manager.query('update folder_class set class_id = $1 where folder_id = $2', [
    ...[ids.plover, moved],
  ])
  expect((await kept(tomasz, piece)).body.folder).toBeNull()
  expect(await lies(tomasz, piece, ids.open)).toBe(true)
})

test('another go changes nothing until it is approved; then whoever did not make it keeps nothing', async () => {
  const piece = await madeTogether()
  const mine = await makeFolder('Shells')
  await keep(school.tomasz, piece, mine)
  const at = `/pieces/${piece.id}/another-go`
  const again = (await school.wren.ask('POST', at, { seenVersion: piece.version })).body
  const alone = await makers(again, [])
  expect(await lies(school.tomasz, piece, mine)).toBe(true)
  expect((await keep(school.tomasz, piece, school.ids.open)).status).toBe(200)
  await keep(school.tomasz, piece, mine)
  await approve(alone)
  expect(await lies(school.tomasz, piece, mine)).toBe(false)
  expect((await kept(school.tomasz, piece)).status).toBe(404)
  // Wren made this one alone: it lies where it was approved into.
  expect((await kept(school.wren, piece)).body).toMatchObject({ together: false, mayChoose: false })
  expect((await keep(school.wren, piece, mine)).body.type).toBe('/problems/piece/not-together')
})

test('only where its task leaves a choice, and only into folders a pupil may file into', async () => {
  const { ids, wren, tomasz, aoife, teacher, parent } = school
  const piece = await madeTogether()
  const closed = await makeFolder('Only teachers file here', { pupilsFile: false })
  const others = newId()
  const look = { name: 'Wren’s own', symbol: 'bridge', colour: 'ochre' }
  await test_.manager.query('update class set pupils_propose = true')
  expect((await wren.ask('PUT', `/folders/proposals/${others}`, look)).status).toBe(200)
  for (const folderId of [closed, others, newId()])
    expect((await keep(tomasz, piece, folderId)).body.type).toBe('/problems/folder/not-found')
  for (const who of [aoife, teacher, parent])
    expect([(await keep(who, piece, ids.open)).status, (await kept(who, piece)).status]).toEqual([
      ...[404, 404],
    ])
  expect((await keep(test_.visitor(), piece, ids.open)).status).toBe(401)

  await test_.manager.query('update piece set task_id = $1 where id = $2', [
    ...[ids.fixedTask, piece.id],
  ])
  expect((await kept(tomasz, piece)).body).toMatchObject({ together: true, mayChoose: false })
  expect((await keep(tomasz, piece, ids.open)).body.type).toBe('/problems/folder/fixed')
})
