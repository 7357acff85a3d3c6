<script setup lang="ts">
import { useTimeoutFn } from '@vueuse/core'
import { counted } from '../../shared/words'
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import { answer, api, type RoomForWords, type StoryEdit, type StoryView, type UnitView } from '../../api/client'
import { useAct } from '../../shared/act'
import { editStories } from '../../shared/edits'
import NotSaved from '../../shared/NotSaved.vue'
import { useNotices } from '../../shared/notices'
import { useTyped } from '../../shared/typed'
import { offered } from './offered'
import { useAlbumWords } from './queries'

/** One story: its words, the room they need, and the cards they flow over. */
const props = defineProps<{ story: StoryView; unit: UnitView; others: StoryView[] }>()
const { act } = useAct(() => props.unit.albumId)
const { data: album } = useAlbumWords(() => props.unit.albumId)
const notices = useNotices()
type Fields = Record<'words' | 'title' | 'author' | 'theme' | 'people', string>
const typed = useTyped<Fields>({
  key: () => `story ${props.story.id}`,
  server: () => ({
    words: props.story.words,
    title: props.story.title,
    author: props.story.author,
    theme: props.story.theme,
    people: props.story.people.join(', '),
  }),
  revision: () => props.story.revision,
  save: write,
})
const [words, title] = [typed.model('words'), typed.model('title')]
const [author, theme, people] = [typed.model('author'), typed.model('theme'), typed.model('people')]
const byHand = ref<boolean | null>(null)
const style = ref('')
const room = ref<RoomForWords>()
const cards = ref(Math.max(1, props.story.cards))
/** The keeper has said how many: what is measured is no more than a suggestion then. */
const countIsTheKeepers = ref(false)
const area = ref<HTMLTextAreaElement>()
/** The room is measured a moment after the last key. */
const pause = useTimeoutFn(() => void measure(), 700, { immediate: false })
watch(words, () => pause.start())
let asked = 0

const styles = computed(() => offered(album.value?.styles, 'journaling', standing.value[0]?.styleKey))
const standing = computed(() =>
  [...props.unit.faces.flatMap((f) => f.pockets.map((p) => p.piece)), ...props.unit.looseCards].filter(
    (p) => p?.storyId === props.story.id,
  ),
)
const key = computed(
  () =>
    style.value ||
    standing.value[0]?.styleKey ||
    (styles.value.find((s) => s.family === album.value?.family) ?? styles.value[0])?.key ||
    '',
)
const hand = computed(() => byHand.value ?? standing.value[0]?.setting?.byHand ?? false)
const neighbours = computed(() => props.others.filter((s) => s.id !== props.story.id))

watch([key], () => void measure())
onMounted(measure)

async function measure() {
  if (!key.value) return
  const turn = ++asked
  try {
    const found = await answer(
      api.POST('/api/units/{id}/room', {
        params: { path: { id: props.unit.id } },
        body: { words: words.value, styleKey: key.value },
      }),
    )
    if (turn !== asked) return
    room.value = found
    if (!standing.value.length && !countIsTheKeepers.value)
      cards.value = (hand.value ? found.byHand : found.typed).find((r) => r.inAlbum > 0)?.cards ?? 1
  } catch (error) {
    notices.refused(error)
  }
}

/** Edits of this story, each on its newest revision when its turn comes. */
type OfThisStory = StoryEdit extends infer Kind
  ? Kind extends { storyId: string }
    ? Omit<Kind, 'storyId' | 'revision'>
    : never
  : never
const edit = (what: OfThisStory) =>
  act(() =>
    editStories(props.unit.albumId, {
      ...what,
      storyId: props.story.id,
      revision: props.story.revision,
    } as StoryEdit),
  )

async function write(now: Fields, changed: (keyof Fields)[]) {
  const { words: written, people: named, ...described } = now
  const people = named
    .split(',')
    .map((p) => p.trim())
    .filter(Boolean)
  const saved =
    (!changed.includes('words') || (await edit({ kind: 'writeStory', words: written }))) &&
    (changed.every((name) => name === 'words') || (await edit({ kind: 'describeStory', ...described, people })))
  await nextTick()
  return !!saved
}

async function setOnCards() {
  if (!(await typed.flush())) return
  await act(() =>
    editStories(props.unit.albumId, {
      kind: 'setStoryOnCards',
      storyId: props.story.id,
      unitId: props.unit.id,
      revision: props.unit.revision,
      cards: cards.value,
      styleKey: key.value,
      byHand: hand.value,
    }),
  )
}

async function split() {
  const at = area.value?.selectionStart ?? 0
  if (await typed.flush()) await edit({ kind: 'splitStory', at })
}

const join = (other: StoryView) => edit({ kind: 'mergeStories', otherId: other.id })

/** A story may carry several dates, such as one about the whole week's weather. */
const days = computed(() => props.unit.days.filter((d) => props.story.days.includes(d.day)))
const tellsOf = (day: string, on: boolean): string[] =>
  on
    ? [...new Set([...props.story.days, day])].sort()
    : props.story.days.filter((d) => d !== day || props.story.days.length === 1)

const move = (to: string[]) => edit({ kind: 'dateStory', days: to, hour: props.story.hour })

/** The story before this one in the same order, to change places with. */
const before = computed(() => {
  const at = props.others.findIndex((s) => s.id === props.story.id)
  const other = at > 0 ? props.others[at - 1] : undefined
  return other && other.days[0] === props.story.days[0] ? other : undefined
})
const moveUp = () => edit({ kind: 'swapStories', otherId: before.value!.id })

const throwAway = () => edit({ kind: 'deleteStory' })
</script>

<template>
  <article class="panel story" :aria-label="story.title || 'A story'">
    <div class="head">
      <div class="grow">
        <label class="form-label mb-0" :for="`title-${story.id}`">Title</label>
        <input
          :id="`title-${story.id}`"
          v-model="title"
          class="form-control form-control-sm"
          maxlength="200"
          @blur="typed.flush"
        />
      </div>
      <div>
        <label class="form-label mb-0" :for="`author-${story.id}`">Author</label>
        <input
          :id="`author-${story.id}`"
          v-model="author"
          class="form-control form-control-sm"
          maxlength="80"
          @blur="typed.flush"
        />
      </div>
      <div>
        <label class="form-label mb-0" :for="`people-${story.id}`">People</label>
        <input
          :id="`people-${story.id}`"
          v-model="people"
          class="form-control form-control-sm"
          list="people"
          placeholder="Otto, Junie"
          @blur="typed.flush"
        />
      </div>
      <div>
        <label class="form-label mb-0" :for="`theme-${story.id}`">Theme</label>
        <input
          :id="`theme-${story.id}`"
          v-model="theme"
          class="form-control form-control-sm"
          maxlength="120"
          list="themes"
          @blur="typed.flush"
        />
      </div>
      <div v-if="unit.days.length > 1">
        <label class="form-label mb-0" :for="`day-${story.id}`">Day</label>
        <BFormSelect
          :id="`day-${story.id}`"
          size="sm"
          :model-value="days.length === 1 ? days[0]!.day : ''"
          @update:model-value="move([$event as string])"
        >
          <option v-if="days.length !== 1" value="">
            {{ days.length ? counted(days.length, 'day') : 'another day' }}
          </option>
          <option v-for="d in unit.days" :key="d.day" :value="d.day">{{ d.label }}</option>
        </BFormSelect>
      </div>
      <div v-if="unit.hours.length">
        <label class="form-label mb-0" :for="`hour-${story.id}`">Hour</label>
        <BFormSelect
          :id="`hour-${story.id}`"
          size="sm"
          :model-value="story.hour ?? unit.hours[0]!.hour"
          @update:model-value="
            edit({ kind: 'dateStory', days: story.days.length ? story.days : [unit.firstDay], hour: Number($event) })
          "
        >
          <option v-for="h in unit.hours" :key="h.hour" :value="h.hour">{{ h.label }}</option>
        </BFormSelect>
      </div>
    </div>
    <details v-if="unit.days.length > 1" class="small mt-1">
      <summary>Tells of several days</summary>
      <div class="d-flex flex-wrap gap-3">
        <span v-for="d in unit.days" :key="d.day" class="form-check">
          <input
            :id="`of-${story.id}-${d.day}`"
            type="checkbox"
            class="form-check-input"
            :checked="story.days.includes(d.day)"
            @change="move(tellsOf(d.day, ($event.target as HTMLInputElement).checked))"
          />
          <label class="form-check-label" :for="`of-${story.id}-${d.day}`">{{ d.label }}</label>
        </span>
      </div>
    </details>
    <label class="form-label mb-0 mt-2" :for="`story-${story.id}`">Words</label>
    <textarea
      :id="`story-${story.id}`"
      ref="area"
      v-model="words"
      class="form-control"
      rows="5"
      maxlength="200000"
      @blur="typed.flush"
    ></textarea>
    <NotSaved :failed="typed.failed.value" @again="typed.again" @discard="typed.discard" />
    <p class="mt-1 mb-1" aria-live="polite" data-testid="room">
      {{ room?.summary }}
      <span v-if="room?.byHand.length" class="visually-quiet">
        By hand: {{ room.byHand.map((r) => r.label).join(', or ') }}.
      </span>
    </p>
    <form class="set" @submit.prevent="setOnCards">
      <label class="form-label mb-0" :for="`cards-${story.id}`">On</label>
      <input
        :id="`cards-${story.id}`"
        v-model.number="cards"
        type="number"
        min="1"
        max="40"
        class="form-control form-control-sm count"
        @input="countIsTheKeepers = true"
      />
      <label class="form-label mb-0" :for="`in-${story.id}`">cards in</label>
      <BFormSelect :id="`in-${story.id}`" v-model="style" class="style" size="sm">
        <option value="">{{ styles.find((s) => s.key === key)?.name }}</option>
        <option v-for="s in styles" :key="s.key" :value="s.key">{{ s.family }}: {{ s.name }}</option>
      </BFormSelect>
      <span class="form-check mx-1 my-2">
        <input
          :id="`hand-${story.id}`"
          type="checkbox"
          class="form-check-input"
          :checked="hand"
          @change="((byHand = ($event.target as HTMLInputElement).checked), measure())"
        />
        <label class="form-check-label" :for="`hand-${story.id}`">by hand</label>
      </span>
      <BButton type="submit" size="sm" variant="primary" :disabled="!words.trim()">
        {{ standing.length ? 'Fit again' : 'Set on cards' }}
      </BButton>
      <BButton size="sm" variant="outline-dark" @click="split">Split here</BButton>
      <BDropdown v-if="neighbours.length" text="Merge with" size="sm" variant="outline-dark">
        <BDropdownItemButton v-for="n in neighbours" :key="n.id" @click="join(n)">
          {{ n.title || n.words.slice(0, 50) || 'the empty one' }}
        </BDropdownItemButton>
      </BDropdown>
      <BButton v-if="before" size="sm" variant="outline-dark" @click="moveUp">Move up</BButton>
      <BButton size="sm" variant="outline-dark" @click="throwAway">Delete</BButton>
    </form>
    <p v-if="standing.length" class="form-text mb-0" data-testid="standing">
      Stands on {{ counted(standing.length, 'card') }}, which {{ standing.length === 1 ? 'follows' : 'follow' }} every
      change here<span v-if="standing.length % 2 === 1 && standing.length > 1"
        >; an odd number leaves a back for a picture</span
      >.
    </p>
  </article>
</template>

<style scoped>
.story {
  margin-bottom: 0.8rem;
  padding: 0.8rem 1rem;
  border: 1px solid var(--line);
  border-left: 6px solid var(--zest);
  border-radius: 0.6rem;
}
.head,
.set {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: end;
}
.set {
  align-items: center;
}
.grow {
  flex: 1 1 12rem;
}
.count {
  width: 4.5rem;
}
.style {
  width: 13rem;
}
</style>
