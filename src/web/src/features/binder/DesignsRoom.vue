<script setup lang="ts">
import { plural } from '../../shared/words'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answer, api, type AlbumView, type DesignEdit, type OwnDesignView } from '../../api/client'
import { editDesigns } from '../../shared/edits'
import { useNotices } from '../../shared/notices'
import PageThumb from './PageThumb.vue'
import { keys } from '../../shared/queries'
import { useCatalog, useDesigns } from './queries'
import DesignEditor from './DesignEditor.vue'

/** The collection of page designs, and drawing new ones. */
const props = defineProps<{ album: AlbumView }>()
const { data: catalog } = useCatalog()
const { data: own } = useDesigns()
const notices = useNotices()
const client = useQueryClient()
const start = ref(body())
const refused = ref<string[]>([])
const file = ref<HTMLInputElement>()
const builtIn = computed(() => (catalog.value?.designs ?? []).filter((d) => d.body === body()))

/** The album's page as a notation begins with it. */
function body() {
  return props.album.protectors.find((p) => p.kind === 'pockets')?.body ?? '9x12'
}
const refresh = () => client.invalidateQueries({ queryKey: keys.designs })

/** Does an edit of the collection, and tells what was done with a way to undo it. */
async function edit(what: DesignEdit, undo?: (done: OwnDesignView) => DesignEdit) {
  try {
    const { done, design } = await editDesigns(what)
    await refresh()
    notices.done(`${done}.`, undo && (() => edit(undo(design))))
  } catch (error) {
    await refresh()
    notices.refused(error)
  }
}

const at = ({ id, revision }: OwnDesignView) => ({ designId: id, revision })
const keep = (name: string, notation: string) =>
  edit({ kind: 'addDesign', name: name || null, notation }, (d) => ({ kind: 'deleteDesign', ...at(d) }))
const remove = (design: OwnDesignView) =>
  edit({ kind: 'deleteDesign', ...at(design) }, (d) => ({ kind: 'restoreDesign', ...at(d) }))
const rename = (design: OwnDesignView, name: string) =>
  edit({ kind: 'renameDesign', name, ...at(design) }, (d) => ({
    kind: 'renameDesign',
    name: design.design.name,
    ...at(d),
  }))

async function save() {
  try {
    const text = await answer(api.GET('/api/designs/export', { parseAs: 'text' }))
    const link = document.createElement('a')
    link.href = URL.createObjectURL(new Blob([String(text)], { type: 'application/json' }))
    link.download = 'page-designs.json'
    link.click()
    URL.revokeObjectURL(link.href)
  } catch (error) {
    notices.refused(error)
  }
}

async function take() {
  const chosen = file.value?.files?.[0]
  if (!chosen) return
  try {
    const done = await answer(api.POST('/api/designs/import', { body: { text: await chosen.text() } }))
    refused.value = done.refused
    await refresh()
    notices.done(`${done.kept.length} ${plural(done.kept.length, 'design is', 'designs are')} in your collection.`)
  } catch (error) {
    notices.refused(error)
  }
  if (file.value) file.value.value = ''
}
</script>

<template>
  <div class="room">
    <h2 class="h5">Draw a page</h2>
    <DesignEditor :start="start" @keep="keep" />
    <div class="d-flex align-items-baseline gap-3 flex-wrap mt-4">
      <h2 class="h5 mb-0">My page designs</h2>
      <BButton size="sm" variant="outline-dark" :disabled="!own?.length" @click="save">Export designs</BButton>
      <label class="btn btn-sm btn-outline-dark mb-0"
        >Import designs
        <input
          ref="file"
          type="file"
          accept=".json,.txt,application/json,text/plain"
          class="visually-hidden"
          @change="take"
        />
      </label>
    </div>
    <div v-if="refused.length" class="warning-chip" role="alert">
      <ul class="mb-0">
        <li v-for="r in refused" :key="r">{{ r }}</li>
      </ul>
    </div>
    <p v-if="own?.length === 0" class="visually-quiet">
      Nothing in it yet: draw a page above and keep it, or take designs from a file.
    </p>
    <ul class="designs">
      <li v-for="d in own ?? []" :key="d.id" class="design" data-testid="own-design">
        <PageThumb :design="d.design" />
        <span class="name">
          <input
            class="form-control form-control-sm"
            :value="d.design.name"
            maxlength="120"
            :aria-label="`Name of ${d.design.name}`"
            @change="rename(d, ($event.target as HTMLInputElement).value)"
          />
          <span class="small visually-quiet">{{ d.design.body }}</span>
        </span>
        <span class="d-flex gap-1">
          <BButton
            size="sm"
            variant="outline-dark"
            :aria-label="`Edit a copy of ${d.design.name}`"
            @click="start = d.notation"
            >Edit a copy</BButton
          >
          <BButton size="sm" variant="outline-dark" :aria-label="`Delete ${d.design.name}`" @click="remove(d)"
            >Delete</BButton
          >
        </span>
      </li>
    </ul>
    <h2 class="h5 mt-4">Built in, for pages of {{ body() }}</h2>
    <ul class="designs">
      <li v-for="d in builtIn" :key="d.key" class="design">
        <PageThumb :design="d" />
        <span>{{ d.name }}</span>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.designs {
  display: flex;
  flex-wrap: wrap;
  gap: 0.75rem;
  margin: 0.5rem 0 0;
  padding: 0;
  list-style: none;
}
.name {
  display: flex;
  gap: 0.35rem;
  align-items: center;
}
.design {
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 0.3rem;
  padding: 0.6rem;
  background: var(--card);
  border: 1px solid var(--line);
  border-radius: 0.5rem;
  max-width: 15rem;
}
</style>
