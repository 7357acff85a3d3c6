<script setup lang="ts">
import { ref } from 'vue'
import { answer, api, type CaptionAnswer, type PieceView } from '../../api/client'
import { useNotices } from '../../shared/notices'
import { useTyped } from '../../shared/typed'
import type { Edit } from '../placing/unit'
import { typefaces } from './kinds'

/** Words on a print: the program finds a quiet place and an ink that can be read there. */
const props = defineProps<{ unitId: string; piece: PieceView; edit: (change: Edit) => Promise<unknown> }>()
const notices = useNotices()
/** Words stay with their picture until they are on it, also when another pocket is chosen meanwhile. */
type Fields = { words: string; large: boolean; face: CaptionAnswer['caption']['face']; label: boolean }
const typed = useTyped<Fields>({
  key: () => `words on ${props.piece.id}`,
  server: () => ({
    words: props.piece.caption?.words ?? '',
    large: (props.piece.caption?.sizePt ?? 0) > 16,
    face: props.piece.caption?.face ?? 'display',
    label: !!props.piece.caption?.label,
  }),
})
const [words, large] = [typed.model('words'), typed.model('large')]
const [face, label] = [typed.model('face'), typed.model('label')]
const found = ref<CaptionAnswer>()
const looking = ref(false)

/** What the program fills in from the picture: it stays right when the picture or the date style changes. */
const fields = ['time', 'date', 'weekday', 'day number', 'place']

async function find() {
  if (!words.value.trim()) return
  looking.value = true
  try {
    found.value = await answer(
      api.POST('/api/units/{id}/pieces/{pieceId}/caption', {
        params: { path: { id: props.unitId, pieceId: props.piece.id } },
        body: { words: words.value, large: large.value, face: face.value, label: label.value },
      }),
    )
  } catch (error) {
    notices.refused(error)
  } finally {
    looking.value = false
  }
}

async function withLabel(on: boolean) {
  label.value = on
  await find()
}

async function put() {
  if (!(await props.edit({ kind: 'captionPhoto', pieceId: props.piece.id, caption: found.value!.caption }))) return
  found.value = undefined
  typed.discard()
}

async function takeOff() {
  if (!(await props.edit({ kind: 'captionPhoto', pieceId: props.piece.id, caption: null }))) return
  found.value = undefined
  typed.discard()
}
</script>

<template>
  <details class="border-top pt-2" :open="!!piece.caption">
    <summary>Words on the picture</summary>
    <form class="mt-2" @submit.prevent="find">
      <label class="form-label mb-0" :for="`caption-${piece.id}`">Words</label>
      <input :id="`caption-${piece.id}`" v-model="words" class="form-control form-control-sm" maxlength="200" />
      <div class="d-flex flex-wrap gap-1 mt-1" role="group" aria-label="Insert what is computed">
        <button
          v-for="f in fields"
          :key="f"
          type="button"
          class="btn btn-sm btn-outline-dark py-0"
          @click="words = `${words} {${f}}`.trim()"
        >
          {{ f }}
        </button>
      </div>
      <div class="d-flex gap-2 my-2">
        <BFormSelect v-model="large" size="sm" aria-label="How large">
          <option :value="false">Caption</option>
          <option :value="true">Large word</option>
        </BFormSelect>
        <BFormSelect v-model="face" size="sm" aria-label="Typeface of the words">
          <option v-for="t in typefaces" :key="t.face" :value="t.face">{{ t.name }}</option>
        </BFormSelect>
      </div>
      <div class="d-flex flex-wrap gap-2">
        <BButton type="submit" size="sm" variant="outline-dark" :disabled="looking || !words.trim()"
          >Find a quiet place</BButton
        >
        <BButton v-if="piece.caption" size="sm" variant="outline-dark" @click="takeOff">Delete words</BButton>
      </div>
    </form>
    <div v-if="found" class="mt-2">
      <img :src="found.picture" class="tried" :alt="`The print with the words “${found.caption.words}”`" />
      <p class="mb-1" aria-live="polite" data-testid="caption-says">
        <span :class="{ 'warning-chip': found.wantsLabel }">{{ found.wantsLabel ? '! ' : '' }}{{ found.says }}</span>
      </p>
      <div class="form-check mb-2">
        <input
          :id="`label-${piece.id}`"
          type="checkbox"
          class="form-check-input"
          :checked="label"
          @change="withLabel(($event.target as HTMLInputElement).checked)"
        />
        <label class="form-check-label" :for="`label-${piece.id}`">On a label</label>
      </div>
      <BButton size="sm" variant="primary" @click="put">Add to photo</BButton>
    </div>
  </details>
</template>

<style scoped>
.tried {
  max-width: 100%;
  max-height: 260px;
  border: 1px solid var(--line);
}
</style>
