// Used by ./test: in the first round makes an album and its bundle, in the second looks for what was restored from it.
import { writeFileSync } from 'node:fs'

const [base, round, file] = process.argv.slice(2)
const ask = async (path, body) => {
  const answer = await fetch(base + path, {
    method: body ? 'POST' : 'GET',
    headers: { 'content-type': 'application/json' },
    body: body && JSON.stringify(body),
  })
  if (!answer.ok) throw new Error(`${path}: ${answer.status} ${await answer.text()}`)
  return answer
}

if (round === '1') {
  const album = await (
    await ask('/api/albums', {
      name: 'Kept',
      firstDay: '2026-05-04',
      units: 4,
      designKeys: ['6x8-four-3x4'],
      measures: 'inches',
    })
  ).json()
  const { id } = await (await ask('/api/backups', { requestKey: 'round', albumIds: [album.id] })).json()
  let backup
  do {
    await new Promise((go) => setTimeout(go, 100))
    backup = await (await ask(`/api/backups/${id}`)).json()
  } while (backup.state === 'waiting' || backup.state === 'running')
  if (backup.state !== 'done') throw new Error(backup.problem)
  writeFileSync(file, Buffer.from(await (await ask(`/api/backups/${id}/file`)).arrayBuffer()))
} else {
  const names = (await (await ask('/api/albums')).json()).map((a) => a.name).sort()
  if (names.join() !== 'Kept,Kept (restored)') throw new Error(`On the shelf: ${names}`)
}
