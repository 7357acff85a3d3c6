<script setup lang="ts">
import { tabs } from './places'
import { singleKeys } from './shortcuts'

const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ tour: [] }>()

function takeTour() {
  open.value = false
  emit('tour')
}

const groups: { title: string; keys: [string, string][] }[] = [
  {
    title: 'Anywhere in an album',
    keys: [
      [`1 to ${tabs.length}`, tabs.map((t) => t.name).join(', ')],
      ['Ctrl K', 'Find anything: a week, a date, a photo, a story, a room'],
      ['[ ]', 'Week, day or hour before and after'],
      ['Ctrl Z', 'Undo'],
      ['Ctrl Shift Z', 'Redo'],
      ['?', 'This sheet'],
    ],
  },
  {
    title: 'On the tape',
    keys: [
      ['← → Home End', 'Move along; Enter opens one'],
      ['M', 'Merge with the next'],
      ['S', 'Split what was merged'],
      ['L', 'Leave out on purpose, or take back in'],
      ['N', 'Make one more at the end'],
    ],
  },
  {
    title: 'On photos',
    keys: [
      ['K M X U', 'Keep, maybe, leave out, not decided'],
      ['0 1 2 3', 'Stars'],
      ['Enter', 'Open large; there ← → move, + − zoom'],
      ['C', 'Two side by side'],
      ['F P V', 'Focus point, what must stay, what is covered'],
    ],
  },
  {
    title: 'On the mat',
    keys: [
      ['← → ↑ ↓', 'Move between pockets'],
      ['Enter', 'Pick up the piece, or put what you hold here (swaps)'],
      ['Delete', 'Take the piece out'],
      ['Shift and arrows', 'Move the picture inside its pocket'],
      ['+ −', 'Zoom the picture'],
      ['L', 'Lock or unlock the piece'],
      ['Space', 'Turn the leaf over; Shift Space turns back'],
      ['F', 'Fill the spread'],
      ['T', 'True size, or the whole spread'],
      ['Escape', 'Let go of what you hold, then of the pocket'],
    ],
  },
  {
    title: 'In the tray',
    keys: [
      ['← →', 'Move along the pieces'],
      ['Enter', 'Hold the piece, then go to a pocket and press Enter'],
    ],
  },
]
</script>

<template>
  <BModal v-model="open" title-tag="h2" title-class="h5 mb-0" title="Keyboard" size="lg" no-footer scrollable>
    <div class="row">
      <section v-for="group in groups" :key="group.title" class="col-md-6 mb-3">
        <h3 class="h6">{{ group.title }}</h3>
        <dl class="keys">
          <template v-for="[key, what] in group.keys" :key="key">
            <dt>
              <span class="kbd-key">{{ key }}</span>
            </dt>
            <dd>{{ what }}</dd>
          </template>
        </dl>
      </section>
    </div>
    <BButton size="sm" variant="outline-dark" class="mb-3" @click="takeTour">Take the tour</BButton>
    <label class="form-check">
      <input v-model="singleKeys" type="checkbox" class="form-check-input" />
      <span class="form-check-label">Single keys work without Ctrl (turn off if you use speech input)</span>
    </label>
  </BModal>
</template>

<style scoped>
.keys {
  display: grid;
  grid-template-columns: 9.5rem 1fr;
  gap: 0.3rem 0.8rem;
}
.keys dt {
  font-weight: 500;
}
.keys dd {
  margin: 0;
}
</style>
