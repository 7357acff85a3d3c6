<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { reactive, ref, watch } from 'vue'
import { answer, api, Refusal, type AlbumView } from '../../api/client'
import { useNotices } from '../../shared/notices'
import { keys, useRefresh } from './queries'

const open = defineModel<boolean>({ required: true })
const props = defineProps<{ album: AlbumView }>()
const notices = useNotices()
const client = useQueryClient()
const refresh = useRefresh()

interface Form {
  outer: string
  ringStrip: string
  ease: string
  clear: Record<string, string>
}
const forms = reactive<Record<string, Form>>({})
const name = ref('')
const problem = ref('')

watch(
  [open, () => props.album],
  () => {
    if (!open.value) return
    problem.value = ''
    name.value = props.album.name
    for (const p of props.album.protectors) {
      forms[p.id] = {
        outer: p.outer,
        ringStrip: p.ringStrip,
        ease: p.ease,
        clear: Object.fromEntries(p.clearSizes.map((c) => [c.nominal, c.clear ?? ''])),
      }
    }
  },
  { immediate: true },
)

async function measure(protectorId: string, designName: string) {
  const form = forms[protectorId]
  if (!form) return
  problem.value = ''
  try {
    const album = await answer(
      api.PUT('/api/albums/{id}/protectors/{protectorId}', {
        params: { path: { id: props.album.id, protectorId } },
        body: {
          outer: form.outer,
          ringStrip: form.ringStrip,
          ease: form.ease,
          pockets: Object.entries(form.clear).map(([nominal, clear]) => ({ nominal, clear })),
        },
      }),
    )
    client.setQueryData(keys.album(album.id), album)
    await refresh(album.id)
    notices.done(`Measures of ${designName} are saved; pieces are cut to them from now on.`)
  } catch (error) {
    problem.value = error instanceof Refusal ? error.message : 'The measures could not be saved.'
  }
}

async function rename() {
  try {
    const album = await answer(
      api.PUT('/api/albums/{id}/name', { params: { path: { id: props.album.id } }, body: { name: name.value } }),
    )
    client.setQueryData(keys.album(album.id), album)
    await client.invalidateQueries({ queryKey: keys.shelf })
    notices.done('The album has its new name.')
  } catch (error) {
    problem.value = error instanceof Refusal ? error.message : 'The name could not be saved.'
  }
}
</script>

<template>
  <BModal
    v-model="open"
    title-tag="h2"
    title-class="h5 mb-0"
    title="Album and protectors"
    size="lg"
    no-footer
    scrollable
  >
    <form class="d-flex gap-2 align-items-end mb-3" @submit.prevent="rename">
      <div class="flex-grow-1">
        <label for="setup-name" class="form-label">Album name</label>
        <input id="setup-name" v-model="name" class="form-control" maxlength="200" />
      </div>
      <BButton type="submit" variant="outline-dark">Rename</BButton>
    </form>
    <p class="form-text">
      Nominal is not real: measure the clear inside of one pocket of each size, width first. Pieces are cut to the
      nominal size, or to the clear size less the ease when that is smaller. Leave a pocket empty if you have not
      measured it.
    </p>
    <p v-if="problem" class="warning-chip" role="alert">{{ problem }}</p>
    <form
      v-for="p in album.protectors"
      :key="p.id"
      class="border rounded p-3 mb-3"
      @submit.prevent="measure(p.id, p.designName)"
    >
      <h3 class="h6">{{ p.designName }}</h3>
      <div v-if="forms[p.id]" class="row g-2">
        <div class="col-md-4">
          <label :for="`outer-${p.id}`" class="form-label">Outer size</label>
          <input :id="`outer-${p.id}`" v-model="forms[p.id]!.outer" class="form-control" />
        </div>
        <div class="col-md-4">
          <label :for="`ring-${p.id}`" class="form-label">Ring strip</label>
          <input :id="`ring-${p.id}`" v-model="forms[p.id]!.ringStrip" class="form-control" />
        </div>
        <div class="col-md-4">
          <label :for="`ease-${p.id}`" class="form-label">Ease</label>
          <input :id="`ease-${p.id}`" v-model="forms[p.id]!.ease" class="form-control" />
        </div>
        <div v-for="c in p.clearSizes" :key="c.nominal" class="col-md-4">
          <label :for="`clear-${p.id}-${c.nominal}`" class="form-label">Clear size of a {{ c.nominal }}</label>
          <input
            :id="`clear-${p.id}-${c.nominal}`"
            v-model="forms[p.id]!.clear[c.nominal]"
            class="form-control"
            :placeholder="c.nominal"
          />
          <div class="form-text mt-0">cut to {{ c.cut }}</div>
        </div>
      </div>
      <BButton type="submit" size="sm" variant="primary" class="mt-2">Save these measures</BButton>
    </form>
  </BModal>
</template>
