<script setup lang="ts">
import { reactive } from 'vue'
import type { AlbumWordsView } from '../../api/client'
import { editAlbum } from '../../shared/edits'
import { useAct } from '../../shared/act'

/** How much the keeper's own hand gets on a line, from a sample that was really written. */
const props = defineProps<{ albumId: string; words: AlbumWordsView }>()
const { act } = useAct(() => props.albumId)
const sample = reactive({ text: '', lines: 5, lineWidth: '4 in', pitch: '7 mm' })

const measure = () =>
  act(() => editAlbum(props.albumId, { kind: 'measureHand', revision: props.words.revision, ...sample }))
const takeUsual = () => act(() => editAlbum(props.albumId, { kind: 'takeUsualHand', revision: props.words.revision }))
</script>

<template>
  <details class="panel border rounded p-3 mb-3">
    <summary class="h6 mb-0">
      Your hand: {{ words.hand.wordsPerInch }} words to the inch, lines {{ words.hand.pitchMm }} mm apart
    </summary>
    <p class="form-text">
      Write these or other words on a card, as you do in the album, and say how many lines they took: the room for
      handwriting and the lines on cards follow from it.
    </p>
    <form class="sample" @submit.prevent="measure">
      <div class="wide">
        <label for="hand-text" class="form-label mb-0">What you wrote</label>
        <textarea
          id="hand-text"
          v-model="sample.text"
          class="form-control form-control-sm"
          rows="3"
          required
        ></textarea>
      </div>
      <div>
        <label for="hand-lines" class="form-label mb-0">Number of lines</label>
        <input
          id="hand-lines"
          v-model.number="sample.lines"
          type="number"
          min="1"
          max="100"
          class="form-control form-control-sm"
        />
      </div>
      <div>
        <label for="hand-width" class="form-label mb-0">Width of a line</label>
        <input id="hand-width" v-model="sample.lineWidth" class="form-control form-control-sm" />
      </div>
      <div>
        <label for="hand-pitch" class="form-label mb-0">Distance between lines</label>
        <input id="hand-pitch" v-model="sample.pitch" class="form-control form-control-sm" />
      </div>
      <BButton type="submit" size="sm" variant="primary">Measure my handwriting</BButton>
      <BButton size="sm" variant="outline-dark" @click="takeUsual">Use usual handwriting</BButton>
    </form>
  </details>
</template>

<style scoped>
.sample {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: end;
}
.wide {
  flex: 1 1 100%;
}
</style>
