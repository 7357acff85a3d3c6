<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'
import { editAlbum } from '../../shared/edits'
import { deviceTime } from '../../shared/dates'
import { unitPlace } from '../../shared/places'
import { useAct } from '../../shared/act'
import { useAlbum } from '../albums/queries'
import { noteKinds } from '../words/kinds'

/** For the phone, on the way: a price, the weather, something overheard. It lands on its day. */
const props = defineProps<{ albumId: string }>()
const { data: album } = useAlbum(() => props.albumId)
const { act } = useAct(() => props.albumId)
const text = ref('')
const kind = ref<keyof typeof noteKinds>('plain')
const field = ref<HTMLTextAreaElement>()
const kept = ref<{ text: string; done: string; unitId: string }[]>([])

/** The clock of this device, to the minute. */
const now = () => deviceTime().slice(0, 16)
const at = ref(now())
const hint = computed(() =>
  kind.value === 'overheard' ? '“Words”, and who said them' : kind.value === 'price' ? 'What, and how much' : 'What',
)

async function note() {
  const words = text.value.trim()
  if (!words) return
  const result = await act(() =>
    editAlbum(props.albumId, { kind: 'jotNote', text: words, at: at.value, noteKind: kind.value }),
  )
  // What was refused stays in the field.
  if (result) {
    kept.value = [{ text: words, done: result.done, unitId: result.unitId! }, ...kept.value]
    text.value = ''
    await nextTick(() => field.value?.focus())
  }
}
</script>

<template>
  <main class="note">
    <p class="mb-2">
      <RouterLink :to="{ name: 'album', params: { albumId } }">{{ album?.name ?? 'The album' }}</RouterLink>
    </p>
    <h1 class="h4">A quick note</h1>
    <form @submit.prevent="note">
      <fieldset class="kinds">
        <legend class="visually-hidden">What it is about</legend>
        <label v-for="(name, key) in noteKinds" :key="key" class="kind" :class="{ on: kind === key }">
          <input v-model="kind" type="radio" name="kind" :value="key" class="visually-hidden" />{{ name }}
        </label>
      </fieldset>
      <label for="quick-text" class="form-label">{{ hint }}</label>
      <textarea
        id="quick-text"
        ref="field"
        v-model="text"
        class="form-control"
        rows="4"
        maxlength="2000"
        autofocus
      ></textarea>
      <label for="quick-at" class="form-label mt-2">When</label>
      <div class="d-flex gap-2">
        <input id="quick-at" v-model="at" type="datetime-local" class="form-control" />
        <BButton variant="outline-dark" @click="at = now()">Now</BButton>
      </div>
      <BButton type="submit" variant="primary" size="lg" class="w-100 mt-3" :disabled="!text.trim()">Save note</BButton>
    </form>
    <ul v-if="kept.length" class="kept" aria-label="Noted just now">
      <li v-for="(n, i) in kept" :key="i">
        <span>{{ n.text }}</span>
        <RouterLink class="small" :to="unitPlace(albumId, n.unitId, 'tell')">{{ n.done }}</RouterLink>
      </li>
    </ul>
  </main>
</template>

<style scoped>
.note {
  max-width: 30rem;
  margin: 0 auto;
  padding: 1rem 1rem 5rem;
}
.kinds {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.5rem;
  margin-bottom: 0.8rem;
}
.kind {
  padding: 0.7rem;
  text-align: center;
  border: 2px solid var(--line);
  border-radius: 0.6rem;
  background: var(--card);
}
.kind.on {
  border-color: var(--zest);
  font-weight: 700;
}
.kind:focus-within {
  outline: 3px solid var(--zest-bright);
  outline-offset: 2px;
}
.kept {
  margin: 1.2rem 0 0;
  padding: 0;
  list-style: none;
}
.kept li {
  display: flex;
  flex-direction: column;
  padding: 0.5rem 0;
  border-top: 1px solid var(--line);
}
</style>
