<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { answer, api, type AlbumView, type StyleTry, type StyleView } from '../../api/client'
import { editAlbum } from '../../shared/edits'
import { useAct } from '../../shared/act'
import { useNotices } from '../../shared/notices'
import { counted } from '../../shared/words'
import { useAlbumWords } from './queries'
import HandPanel from './HandPanel.vue'
import { stocks, type Stock } from '../../shared/stocks'
import StyleEditor from './StyleEditor.vue'

/** Card styles at true size, family by family: the one new cards take first, then those with styles of one's own. */
const props = defineProps<{ album: AlbumView }>()
const { data: words } = useAlbumWords(() => props.album.id)
const { act } = useAct(() => props.album.id)
const notices = useNotices()
const editing = ref<StyleView | null>(null)
const size = ref('')
const pictures = ref(new Map<string, StyleTry>())
let asked = 0

const sizes = computed(() => words.value?.cardSizes ?? [])
const families = computed(() => {
  const found = new Map<string, StyleView[]>()
  for (const style of words.value?.styles.filter((s) => s.offered) ?? [])
    found.set(style.family, [...(found.get(style.family) ?? []), style])
  const rank = (name: string, styles: StyleView[]) =>
    name === words.value?.family ? 0 : styles.some((s) => s.own) ? 1 : styles.some((s) => s.plan) ? 2 : 3
  return [...found]
    .map(([name, styles]) => ({ name, styles, rank: rank(name, styles) }))
    .sort((a, b) => a.rank - b.rank)
})
const opened = ref<Record<string, boolean>>({})
const isOpen = (family: { name: string; rank: number }) => opened.value[family.name] ?? family.rank < 2
const shown = computed(() => families.value.filter(isOpen).flatMap((f) => f.styles))

watch(
  sizes,
  (all) => {
    if (!size.value) size.value = all[0] ?? ''
  },
  { immediate: true },
)
watch([() => shown.value.map((s) => s.key).join(), () => words.value?.revision, size], () => void paint(), {
  immediate: true,
})

async function paint() {
  const turn = ++asked
  if (!words.value || !size.value) return
  try {
    for (const style of shown.value) {
      const tried = await answer(
        api.POST('/api/albums/{albumId}/words/styles/try', {
          params: { path: { albumId: props.album.id } },
          body: { style, size: size.value, words: '', photo: true },
        }),
      )
      if (turn !== asked) return
      pictures.value = new Map(pictures.value).set(style.key, tried)
    }
  } catch (error) {
    notices.refused(error)
  }
}

const papers = [
  { of: 'picturesOn', label: 'Pictures are printed on' },
  { of: 'cardsOn', label: 'Cards are printed on' },
] as const
const choosePaper = (of: 'picturesOn' | 'cardsOn', stock: Stock) =>
  act(() =>
    editAlbum(props.album.id, {
      kind: 'choosePapers',
      revision: words.value!.revision,
      picturesOn: words.value!.picturesOn,
      cardsOn: words.value!.cardsOn,
      [of]: stock,
    }),
  )

const takeFamily = (family: string) =>
  act(() => editAlbum(props.album.id, { kind: 'chooseFamily', revision: words.value!.revision, family }))

const remove = (style: StyleView) =>
  act(() => editAlbum(props.album.id, { kind: 'deleteStyle', revision: words.value!.revision, key: style.key }))

const copyOf = (style: StyleView): StyleView => ({ ...style, key: '', own: true, name: `${style.name}, mine` })
</script>

<template>
  <div class="room">
    <StyleEditor
      v-if="editing && words"
      :key="editing.key"
      :album-id="album.id"
      :style-in-hand="editing"
      :families="families.map((f) => f.name)"
      :sizes="sizes"
      :size="size"
      :revision="words.revision"
      @close="editing = null"
    />
    <template v-else>
      <div class="d-flex flex-wrap gap-3 align-items-end mb-3">
        <div>
          <label for="styles-size" class="form-label mb-0">Shown on a card of</label>
          <BFormSelect id="styles-size" v-model="size" size="sm">
            <option v-for="s in sizes" :key="s" :value="s">{{ s }}</option>
          </BFormSelect>
        </div>
        <div v-for="p in papers" :key="p.of">
          <label :for="`paper-${p.of}`" class="form-label mb-0">{{ p.label }}</label>
          <BFormSelect
            :id="`paper-${p.of}`"
            size="sm"
            :model-value="words?.[p.of]"
            @update:model-value="choosePaper(p.of, $event as Stock)"
          >
            <option v-for="s in stocks" :key="s.stock" :value="s.stock">{{ s.name }}</option>
          </BFormSelect>
        </div>
        <p class="form-text m-0">At true size. Make one of your own from any of them.</p>
      </div>
      <HandPanel v-if="words" :album-id="album.id" :words="words" />
      <section v-for="family in families" :key="family.name" class="mb-3" :aria-label="`Family ${family.name}`">
        <div class="d-flex gap-3 align-items-center mb-2">
          <h2 class="h5 mb-0">
            <button
              type="button"
              class="family"
              :aria-expanded="isOpen(family)"
              @click="opened[family.name] = !isOpen(family)"
            >
              {{ family.name }}
              <small class="visually-quiet fw-normal">{{ counted(family.styles.length, 'style') }}</small>
            </button>
          </h2>
          <span v-if="words?.family === family.name" class="visually-quiet">Used for new cards</span>
          <BButton v-else size="sm" variant="outline-dark" @click="takeFamily(family.name)">
            Use {{ family.name }} for new cards
          </BButton>
        </div>
        <ul v-if="isOpen(family)" class="styles">
          <li v-for="style in family.styles" :key="style.key">
            <img
              v-if="pictures.get(style.key)"
              :src="pictures.get(style.key)!.picture"
              :alt="`${style.name}, as it prints`"
              :style="{ width: `${pictures.get(style.key)!.width}in` }"
            />
            <p class="small mb-1">
              <strong>{{ style.name }}</strong><span v-if="style.own" class="visually-quiet"> · yours</span><br />
              <span class="visually-quiet">{{ pictures.get(style.key)?.verdict }}</span>
            </p>
            <div class="d-flex gap-1">
              <BButton
                v-if="style.own"
                size="sm"
                variant="outline-dark"
                :aria-label="`Edit ${style.name}`"
                @click="editing = style"
                >Edit</BButton
              >
              <BButton
                size="sm"
                variant="outline-dark"
                :aria-label="`Copy and edit ${style.name}`"
                @click="editing = copyOf(style)"
                >Copy and edit</BButton
              >
              <BButton
                v-if="style.own"
                size="sm"
                variant="outline-dark"
                :aria-label="`Delete ${style.name}`"
                @click="remove(style)"
                >Delete</BButton
              >
            </div>
          </li>
        </ul>
      </section>
    </template>
  </div>
</template>

<style scoped>
.family {
  padding: 0;
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
}
.family::before {
  content: '▸';
  display: inline-block;
  width: 1.1em;
}
.family[aria-expanded='true']::before {
  content: '▾';
}
.styles {
  display: flex;
  flex-wrap: wrap;
  gap: 1.2rem;
  align-items: flex-start;
  margin: 0;
  padding: 0;
  list-style: none;
}
.styles li {
  max-width: 100%;
}
.styles p {
  max-width: 18rem;
}
.styles img {
  max-width: 100%;
  height: auto;
  border: 1px solid var(--line);
  box-shadow: 0 2px 6px rgb(60 40 20 / 0.15);
}
</style>
