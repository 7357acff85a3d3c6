<script setup lang="ts">
import { reactive, ref, useId, watch } from 'vue'
import { Refusal, type AlbumView, type ProtectorView } from '../../api/client'
import { editAlbum } from '../../shared/edits'
import { useNotices } from '../../shared/notices'
import { useHolePatterns } from './queries'
import { useRefresh } from '../../shared/queries'

/** One make of leaf as it was measured: outer size, ring strip, holes, thickness, clear size of each pocket. */
const props = defineProps<{ album: AlbumView; protector: ProtectorView }>()
const notices = useNotices()
const refresh = useRefresh()
const { data: patterns } = useHolePatterns()
/** The same make may be measured in two places of one screen. */
const uid = useId()
const problem = ref('')
const changes = ref<string[]>([])
const form = reactive({
  outer: '',
  ringStrip: '',
  ease: '',
  thickness: '',
  rings: 'left' as 'left' | 'right',
  clear: {} as Record<string, string>,
  pattern: '',
  fromEdge: '5/16 in',
  diameter: '1/4 in',
  fromTop: '',
})

watch(
  () => props.protector,
  (p) => {
    Object.assign(form, {
      outer: p.outer,
      ringStrip: p.ringStrip,
      ease: p.ease,
      thickness: p.thickness,
      rings: p.rings,
      clear: Object.fromEntries(p.clearSizes.map((c) => [c.nominal, c.clear ?? ''])),
      pattern: p.holes?.pattern ?? '',
      fromEdge: p.holes?.fromEdge ?? '5/16 in',
      diameter: p.holes?.diameter ?? '1/4 in',
      fromTop: p.holes?.fromTop.join('; ') ?? '',
    })
  },
  { immediate: true },
)

async function measure() {
  problem.value = ''
  changes.value = []
  try {
    const done = await editAlbum(props.album.id, {
      kind: 'measureProtector',
      protectorId: props.protector.id,
      revision: props.protector.revision,
      outer: form.outer,
      ringStrip: form.ringStrip,
      ease: form.ease,
      thickness: form.thickness,
      rings: form.rings,
      pockets: Object.entries(form.clear).map(([nominal, clear]) => ({ nominal, clear })),
      holes: {
        pattern: form.pattern,
        fromEdge: form.fromEdge,
        diameter: form.diameter,
        fromTop: form.pattern === 'Measured' ? form.fromTop.split(';').filter((t) => t.trim()) : null,
      },
    })
    changes.value = done.changes
    await refresh(props.album.id)
    notices.done(`Measures of ${props.protector.designName} are saved; pieces are cut to them from now on.`)
  } catch (error) {
    problem.value = error instanceof Refusal ? error.message : 'The measures could not be saved.'
  }
}
</script>

<template>
  <form @submit.prevent="measure">
    <h3 class="h6">{{ protector.designName }}</h3>
    <p v-if="problem" class="warning-chip" role="alert">{{ problem }}</p>
    <div v-if="changes.length" class="warning-chip mb-2" role="status">
      <p class="mb-1">What this changes:</p>
      <ul class="mb-0">
        <li v-for="c in changes" :key="c">{{ c }}</li>
      </ul>
    </div>
    <div class="row g-2">
      <div class="col-md-4">
        <label :for="`outer-${uid}`" class="form-label">Outer size</label>
        <input :id="`outer-${uid}`" v-model="form.outer" class="form-control" />
      </div>
      <div class="col-md-4">
        <label :for="`ring-${uid}`" class="form-label">Ring strip</label>
        <input :id="`ring-${uid}`" v-model="form.ringStrip" class="form-control" />
      </div>
      <div class="col-md-4">
        <label :for="`ease-${uid}`" class="form-label">Ease</label>
        <input :id="`ease-${uid}`" v-model="form.ease" class="form-control" />
      </div>
      <div v-for="c in protector.clearSizes" :key="c.nominal" class="col-md-4">
        <label :for="`clear-${uid}-${c.nominal}`" class="form-label">Clear size of a {{ c.nominal }}</label>
        <input
          :id="`clear-${uid}-${c.nominal}`"
          v-model="form.clear[c.nominal]"
          class="form-control"
          :placeholder="c.nominal"
        />
        <div class="form-text mt-0">cut to {{ c.cut }}</div>
      </div>
      <div class="col-md-4">
        <label :for="`thick-${uid}`" class="form-label">Thickness of one leaf</label>
        <input :id="`thick-${uid}`" v-model="form.thickness" class="form-control" />
      </div>
      <div class="col-md-4">
        <label :for="`rings-${uid}`" class="form-label">Rings on the front</label>
        <BFormSelect :id="`rings-${uid}`" v-model="form.rings">
          <option value="left">at the left</option>
          <option value="right">at the right</option>
        </BFormSelect>
      </div>
      <div class="col-md-4">
        <label :for="`holes-${uid}`" class="form-label">Holes</label>
        <BFormSelect :id="`holes-${uid}`" v-model="form.pattern">
          <option value="">not known yet</option>
          <option v-for="name in patterns ?? []" :key="name" :value="name">{{ name }}</option>
          <option value="Measured">measured on one leaf</option>
        </BFormSelect>
      </div>
      <template v-if="form.pattern === 'Measured'">
        <div class="col-md-4">
          <label :for="`edge-${uid}`" class="form-label">Ring edge to the middle of a hole</label>
          <input :id="`edge-${uid}`" v-model="form.fromEdge" class="form-control" />
        </div>
        <div class="col-md-4">
          <label :for="`diameter-${uid}`" class="form-label">Hole</label>
          <input :id="`diameter-${uid}`" v-model="form.diameter" class="form-control" />
        </div>
        <div class="col-md-4">
          <label :for="`top-${uid}`" class="form-label">Each from the top</label>
          <input :id="`top-${uid}`" v-model="form.fromTop" class="form-control" placeholder="2 in; 6 in" />
        </div>
      </template>
    </div>
    <div class="d-flex flex-wrap gap-2 mt-2">
      <BButton type="submit" size="sm" variant="primary">Save measurements</BButton>
      <a
        class="btn btn-sm btn-outline-dark"
        :href="`/api/albums/${album.id}/templates.pdf?protector=${protector.id}&holes=threeRings`"
        :aria-label="`Templates on paper (PDF) of ${protector.designName}`"
        download
        >Templates on paper (PDF)</a
      >
    </div>
  </form>
</template>
