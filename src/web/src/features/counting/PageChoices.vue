<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import { answer, api, type AlbumView, type CountView, type PageChoice, type PageSearchView } from '../../api/client'
import { editAlbum } from '../../shared/edits'
import { untilEnded } from '../../shared/jobs'
import ProgressLine from '../../shared/ProgressLine.vue'
import { useNotices } from '../../shared/notices'
import ChangesDialog from '../../shared/ChangesDialog.vue'
import { usePreview } from '../../shared/preview'

/** Which pages hold it all: two or three ways side by side, each with what it means and why. */
const props = defineProps<{ album: AlbumView; counts: CountView[] }>()
const { asked, ask: look } = usePreview(() => props.album.id)
const notices = useNotices()
const choices = ref<PageChoice[]>()
const search = ref<PageSearchView>()
const asking = ref(false)
const list = ref<HTMLElement>()

/** Priorities, in thousandths of a picture; moved by the keeper, a further way is offered. */
const usual = { leaf: 5000, emptyPocket: 300, crop: 1, change: 50, alter: 400 }
const weights = ref({ ...usual })
const moved = computed(() => JSON.stringify(weights.value) !== JSON.stringify(usual))
const scales = [
  { key: 'leaf', name: 'A leaf more', max: 30000, step: 500 },
  { key: 'emptyPocket', name: 'A pocket that stays empty', max: 3000, step: 50 },
  { key: 'crop', name: 'Cropping', max: 10, step: 1 },
  { key: 'change', name: 'Another design on a leaf that is there', max: 2000, step: 50 },
  { key: 'alter', name: 'A pocket fused', max: 5000, step: 100 },
] as const

// What was asked about has changed (a leaf, leaves on hand, a piece): ask again.
watch(
  () => JSON.stringify([props.counts, props.album.protectors]),
  () => (choices.value = undefined),
)

/** Starts a search and asks how far it is until it has ended. */
async function ask() {
  asking.value = true
  try {
    const begun = await answer(
      api.POST('/api/albums/{albumId}/pages/searches', {
        params: { path: { albumId: props.album.id } },
        body: {
          requestKey: crypto.randomUUID(),
          ask: {
            from: props.counts[0]!.unitId,
            count: props.counts.length,
            weights: moved.value ? weights.value : null,
          },
        },
      }),
    )
    const now = await untilEnded(
      begun,
      () => answer(api.GET('/api/page-searches/{id}', { params: { path: { id: begun.id } } })),
      (far) => (search.value = far),
    )
    if (now.problem) notices.say(now.problem)
    choices.value = now.choices ?? undefined
    await nextTick()
    list.value?.scrollIntoView?.({ block: 'nearest' })
  } catch (error) {
    notices.refused(error)
  } finally {
    asking.value = false
    search.value = undefined
  }
}

const stop = () => {
  const id = search.value?.id
  return id && answer(api.POST('/api/page-searches/{id}/cancel', { params: { path: { id } } })).catch(notices.refused)
}

const take = (choice: PageChoice) =>
  look((preview) =>
    editAlbum(
      props.album.id,
      {
        kind: 'choosePages',
        units: props.counts.map((c) => ({ unitId: c.unitId, revision: c.revision })),
        standing: choice.standing,
        extra: choice.extra,
      },
      preview,
    ),
  )
</script>

<template>
  <section class="mb-4" aria-label="Which pages hold it all">
    <div class="d-flex gap-2 align-items-center flex-wrap mb-2">
      <h3 class="h6 mb-0">Which pages fit everything?</h3>
      <BButton v-if="!asking" variant="primary" size="sm" @click="ask">Find pages</BButton>
      <template v-else>
        <span class="visually-quiet" role="status">Trying the designs you own …</span>
        <ProgressLine
          v-if="search?.waysTotal"
          class="progress"
          :done="search.waysDone"
          :total="search.waysTotal"
          label="Ways tried"
        />
        <BButton variant="outline-dark" size="sm" @click="stop">Cancel</BButton>
      </template>
      <span class="form-text m-0"
        >Leaves with something locked on them, or whose other face is in use, stay as they are.</span
      >
    </div>
    <details class="mb-2">
      <summary>Priorities{{ moved ? ' (moved)' : '' }}</summary>
      <div class="scales">
        <div v-for="s in scales" :key="s.key">
          <label :for="`weight-${s.key}`" class="form-label mb-0">{{ s.name }}: {{ weights[s.key] }}</label>
          <input
            :id="`weight-${s.key}`"
            v-model.number="weights[s.key]"
            type="range"
            min="0"
            :max="s.max"
            :step="s.step"
            class="form-range"
          />
        </div>
        <BButton size="sm" variant="outline-dark" :disabled="!moved" @click="weights = { ...usual }">Reset</BButton>
      </div>
      <p class="form-text mt-0">
        In thousandths of a picture that is cropped away: a leaf more counts as five whole pictures.
      </p>
    </details>
    <ul v-if="choices" ref="list" class="choices" data-testid="choices">
      <li v-for="choice in choices" :key="choice.name" class="panel choice">
        <h4 class="h6 mb-1">{{ choice.name }}</h4>
        <p class="mb-1">{{ choice.says }}</p>
        <p v-if="choice.buy.length" class="warning-chip mb-1">! To buy: {{ choice.buy.join(', ') }}</p>
        <ul class="why">
          <li v-for="p in choice.units" :key="p.unitId">
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
        <BButton size="sm" variant="outline-dark" :aria-label="`Use these pages: ${choice.name}`" @click="take(choice)"
          >Use these pages</BButton
        >
      </li>
    </ul>
    <ChangesDialog v-model="asked" />
  </section>
</template>

<style scoped>
.progress {
  width: 8rem;
}
.scales {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(14rem, 1fr));
  gap: 0.3rem 1.2rem;
  align-items: end;
}
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
