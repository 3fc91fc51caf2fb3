import { enterAsPupil, enterAsTeacher } from './people.ts'
import { pieceOf } from './pieces.ts'
import { expect, test } from './test.ts'

test.use({ viewport: { width: 390, height: 844 } })

test('a class of the youngest hands in by pictures: nothing is typed, and each picture says itself', async ({
  page,
  another,
}) => {
  const teacher = await another()
  await enterAsTeacher(teacher, 'plover', '/class')
  await teacher.getByRole('button', { name: 'Settings' }).click()
  const young = teacher.getByRole('switch', { name: /^Pictures to tap/ })
  const sounds = teacher.getByRole('switch', { name: /^A sound/ })
  await young.click()
  await expect(young).toBeChecked()
  await sounds.click()
  await expect(sounds).toBeChecked()

  await page.addInitScript(() => {
    const spoken: string[] = []
    Object.assign(window, { spoken })
    speechSynthesis.speak = ({ text }) => void spoken.push(text)
    AudioContext.prototype.createOscillator = new Proxy(AudioContext.prototype.createOscillator, {
      apply: (make, context: AudioContext) => {
        spoken.push('note')
        return Reflect.apply(make, context, []) as OscillatorNode
      },
    })
  })
  await enterAsPupil(page, 'Aoife', '/make')
  await page.getByRole('button', { name: 'Take the photo' }).click()
  await page.getByRole('button', { name: 'Go on' }).click()
  await expect(page.getByRole('heading', { name: 'What do you think?' })).toBeVisible()
  await expect(page.getByRole('textbox')).toHaveCount(0)
  await page.getByRole('radio', { name: 'It went well.' }).click()
  await page.getByRole('radio', { name: 'I learned something.' }).click()
  await expect(page.getByRole('radio', { name: 'I learned something.' })).toBeChecked()
  await expect(page.getByRole('radio', { name: 'It went well.' })).not.toBeChecked()
  await page.getByRole('button', { name: 'Go on' }).click()
  await page.getByRole('radio', { name: /^Wind poems/ }).click()
  await expect(page.getByRole('textbox')).toHaveCount(0)
  await page.getByRole('button', { name: 'Put it in the tray' }).click()
  await expect(page.getByRole('heading', { name: 'It is in the tray' })).toBeVisible()
  const heard = await page.evaluate(() => (window as unknown as { spoken: string[] }).spoken)
  expect(heard).toEqual(['It went well.', 'I learned something.', 'note', 'note', 'note'])
  const piece = await pieceOf(page, /my-pieces\/([^/?]+)/.exec(page.url())![1]!)
  expect(piece.versions[0]).toMatchObject({ reflection: 'I learned something.' })
  expect(piece.versions[0]?.title).toMatch(/^Wind poems/)
})
