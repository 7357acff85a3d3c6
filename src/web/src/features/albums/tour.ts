import { useLocalStorage } from '@vueuse/core'
import { ref } from 'vue'

/** The steps of the tour: what each is about, and where it is on the desk. */
export const tourSteps = [
  {
    target: '.tape',
    title: 'The tape is your calendar',
    words:
      'Each tick is a week, a day or an hour, and shows how far it is: ' +
      'photos gathered, words told, pockets filled. Click one to open it.',
  },
  {
    target: '.tab-row',
    title: 'The tabs are the steps of the work',
    words:
      'From gathering photos to printing, always in this order and always here. ' +
      'A number says what is still missing. No step locks another.',
  },
  {
    target: '.scope',
    title: 'Work on one week or on many',
    words: 'Here you choose what a step looks at: this week or day, a stretch of them, or the whole album.',
  },
  {
    target: '.top',
    title: 'Undo anything, find anything',
    words:
      'Every change can be undone, also tomorrow. Find (Ctrl K) leads to any week, date, ' +
      'photo, story or room. The question mark lists the keys.',
  },
]

const seen = useLocalStorage('zesty.tour', '')
const step = ref(-1)

/** The tour opens by itself once, and again whenever it is asked for. */
export function useTour() {
  return {
    step,
    start: () => (step.value = 0),
    startOnce: () => {
      if (!seen.value) step.value = 0
    },
    end: () => {
      step.value = -1
      seen.value = 'seen'
    },
  }
}
