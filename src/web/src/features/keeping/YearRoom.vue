<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { answer, api, type AlbumView } from '../../api/client'
import { useAct } from '../../shared/act'
import { editUnit } from '../../shared/edits'
import { place } from '../../shared/places'
import { useThickness, useYear } from './queries'

/** What the year came to, a card of it, and the album that goes on. */
const props = defineProps<{ album: AlbumView }>()
const { data, error } = useYear(() => props.album.id)
const { act } = useAct(() => props.album.id)
const router = useRouter()
const { data: thickness } = useThickness(() => props.album.id)
const volumes = computed(() => thickness.value?.volumes.map((v, i) => ({ name: v.name, number: i + 1 })))
const busy = ref(false)
const name = ref('')
watch(data, (now) => now && (name.value ||= now.nextName), { immediate: true })
const lastUnit = () => props.album.units.find((u) => u.id === data.value?.lastUnitId)

async function addCard() {
  busy.value = true
  try {
    await act(async () => {
      const unit = await answer(api.GET('/api/units/{id}', { params: { path: { id: data.value!.lastUnitId! } } }))
      const edited = await editUnit(unit.id, {
        kind: 'addCard',
        revision: unit.revision,
        cardKind: 'journaling',
        words: data.value!.cardWords,
        styleKey: null,
        place: null,
        day: null,
      })
      return { done: edited.done }
    })
  } finally {
    busy.value = false
  }
}

async function makeNext() {
  busy.value = true
  try {
    const made = await act(async () => {
      const next = await answer(
        api.POST('/api/albums/{id}/next', {
          params: { path: { id: props.album.id } },
          body: { name: name.value },
        }),
      )
      return { done: `Created ${next.name}`, next }
    })
    if (made) await router.push(place(made.next.id, { kind: 'album' }, 'overview'))
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <div class="room" data-testid="year">
    <section class="room-panel mb-3" aria-labelledby="year-head">
      <h2 id="year-head" class="h5 mb-1">The year in numbers</h2>
      <p v-if="error" class="warning-chip" role="alert">! {{ error.message }}</p>
      <p v-else-if="!data" role="status">Counting …</p>
      <template v-else>
        <p v-if="!data.lines.length" class="mb-0">Nothing is in this album yet.</p>
        <ul v-else class="numbers">
          <li v-for="line in data.lines" :key="line">{{ line }}</li>
        </ul>
        <p v-if="data.people.length" class="mb-2">
          Stories that name
          <template v-for="(p, i) in data.people" :key="p.name">
            {{ p.name }}: {{ p.count }}{{ i < data.people.length - 1 ? ', ' : '.' }}
          </template>
        </p>
        <p v-if="data.seen.length" class="mb-2">
          Pictures that show
          <template v-for="(p, i) in data.seen" :key="p.name">
            {{ p.name }}: {{ p.count }}{{ i < data.seen.length - 1 ? ', ' : '.' }}
          </template>
        </p>
        <div v-if="data.colours.length" class="d-flex gap-2 mb-3" role="img" :aria-label="`Main colours of the year`">
          <span
            v-for="c in data.colours"
            :key="c.hex"
            class="swatch"
            :style="{ background: c.hex, flexGrow: c.percent }"
            ><span class="visually-hidden">{{ c.percent }} %</span></span
          >
        </div>
        <BButton v-if="data.lines.length && lastUnit()" size="sm" variant="primary" :disabled="busy" @click="addCard"
          >Add these numbers as a card to {{ lastUnit()!.title }}</BButton
        >
      </template>
    </section>
    <section v-if="data?.lines.length" class="room-panel mb-3" aria-labelledby="title-page-head">
      <h3 id="title-page-head" class="h6">Title page</h3>
      <div class="d-flex flex-wrap gap-4">
        <figure v-for="v in volumes ?? []" :key="v.name" class="mb-0">
          <img
            :src="`/api/albums/${album.id}/title-page.png?volume=${v.number}`"
            :alt="`Title page of ${v.name}`"
            class="title-page"
          />
          <figcaption>
            <a
              class="btn btn-sm btn-outline-dark mt-2"
              :href="`/api/albums/${album.id}/title-page.pdf?volume=${v.number}`"
              :aria-label="`Title page (PDF): ${v.name}`"
              download
              >Title page (PDF)</a
            >
          </figcaption>
        </figure>
      </div>
    </section>
    <section v-if="data?.nextFirstDay" class="room-panel" aria-labelledby="next-head">
      <h3 id="next-head" class="h6">The next album</h3>
      <p>
        It begins on {{ data.nextFirstDay }} with the pages, styles, hand, people, formulas, rings and evenings of this
        one, and nothing else in it.
      </p>
      <form class="d-flex flex-wrap gap-2 align-items-end" @submit.prevent="makeNext">
        <div>
          <label for="next-name" class="form-label mb-0">Name</label>
          <BFormInput id="next-name" v-model="name" size="sm" maxlength="120" required class="name" />
        </div>
        <BButton type="submit" size="sm" variant="outline-dark" :disabled="busy">Create album</BButton>
      </form>
    </section>
  </div>
</template>

<style scoped>
.numbers {
  columns: 2 14rem;
  margin-bottom: 0.75rem;
  font-size: 1.1rem;
}
.name {
  width: min(24rem, 80vw);
}
.title-page {
  width: 15rem;
  border: 1px solid var(--line);
}
.swatch {
  height: 2.5rem;
  min-width: 2rem;
  border: 1px solid var(--line);
}
</style>
