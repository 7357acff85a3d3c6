import { expect, it } from 'vitest'
import type { StyleView } from '../../api/client'
import { offered } from './offered'

const style = (key: string, kinds: StyleView['kinds'], isOffered: boolean) =>
  ({ key, kinds, offered: isOffered }) as StyleView

it('keeps a style that is offered no more where a card has it', () => {
  const styles = [
    style('old', ['journaling'], false),
    style('new', ['journaling'], true),
    style('filler', ['filler'], true),
  ]
  expect(offered(styles, 'journaling').map((s) => s.key)).toEqual(['new'])
  expect(offered(styles, 'journaling', 'old').map((s) => s.key)).toEqual(['old', 'new'])
  expect(offered(undefined, 'filler', 'old')).toEqual([])
})
