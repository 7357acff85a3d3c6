<script setup lang="ts">
import { ref, watch } from 'vue'
import { answer, api, type AlbumView, type CountView, type PageChoiceView } from '../../api/client'
import { useAct } from '../../shared/act'
import { useNotices } from '../../shared/notices'

/** Which pages hold it all: two or three ways side by side, each with what it means and why. */
const props = defineProps<{ album: AlbumView; counts: CountView[]; from: string }>()
const { act } = useAct(() => props.album.id)
const notices = useNotices()
const choices = ref<PageChoiceView[]>()
const asking = ref<AbortController>()

// What was asked about has changed (a leaf, a stock, a piece): ask again.
watch(
  () => JSON.stringify([props.counts, props.album.protectors]),
  () => (choices.value = undefined),
)

async function ask() {
  const stop = new AbortController()
  asking.value = stop
  try {
    choices.value = await answer(
      api.POST('/api/albums/{albumId}/pages/choose', {
        params: { path: { albumId: props.album.id } },
        body: { from: props.from, count: props.counts.length },
        signal: stop.signal,
      }),
    )
  } catch (error) {
    if (!stop.signal.aborted) notices.refused(error)
  } finally {
    asking.value = undefined
  }
}

const take = (choice: PageChoiceView) =>
  act(() =>
    answer(
      api.POST('/api/albums/{albumId}/pages', {
        params: { path: { albumId: props.album.id } },
        body: {
          units: props.counts.map((c) => ({ unitId: c.unitId, revision: c.revision })),
          standing: choice.standing,
          extra: choice.extra,
        },
      }),
    ),
  )
</script>

<template>
  <section class="mb-4" aria-label="Which pages hold it all">
    <div class="d-flex gap-2 align-items-center flex-wrap mb-2">
      <h3 class="h6 mb-0">Which pages hold it all?</h3>
      <BButton v-if="!asking" variant="primary" size="sm" @click="ask">Choose the pages</BButton>
      <template v-else>
        <span class="visually-quiet" role="status">Trying the designs you own …</span>
        <BButton variant="outline-dark" size="sm" @click="asking.abort()">Stop</BButton>
      </template>
      <span class="form-text m-0"
        >Leaves with something locked on them, or whose other face is in use, stay as they are.</span
      >
    </div>
    <ul v-if="choices" class="choices" data-testid="choices">
      <li v-for="choice in choices" :key="choice.name" class="panel choice">
        <h4 class="h6 mb-1">{{ choice.name }}</h4>
        <p class="mb-1">{{ choice.says }}</p>
        <p v-if="choice.buy.length" class="warning-chip mb-1">! To buy: {{ choice.buy.join(', ') }}</p>
        <ul class="why">
          <li v-for="p in choice.parts" :key="p.unitId">
            <strong>{{ p.title }}:</strong> {{ p.says }}
          </li>
        </ul>
        <p class="small visually-quiet mb-2">
          {{
            choice.proved
              ? 'Proved: no other choice is better by these weights.'
              : `At most ${choice.gap} % from the best.`
          }}
        </p>
        <BButton size="sm" variant="outline-dark" :aria-label="`Take these pages: ${choice.name}`" @click="take(choice)"
          >Take these pages</BButton
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
.choices {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(16rem, 1fr));
  gap: 1rem;
  margin: 0;
  padding: 0;
  list-style: none;
}
.choice {
  padding: 0.8rem 1rem;
  border: 1px solid var(--line);
  border-top: 5px solid var(--zest);
  border-radius: 0.6rem;
}
.why {
  margin: 0 0 0.4rem;
  padding-left: 1.1rem;
  max-height: 14rem;
  overflow-y: auto;
}
</style>
