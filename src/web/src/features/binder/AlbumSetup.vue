<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ref, watch } from 'vue'
import { Refusal, type AlbumView } from '../../api/client'
import { editAlbum } from '../../shared/edits'
import { useNotices } from '../../shared/notices'
import ProtectorMeasures from './ProtectorMeasures.vue'
import { keys } from '../../shared/queries'

const open = defineModel<boolean>({ required: true })
const props = defineProps<{ album: AlbumView }>()
const notices = useNotices()
const client = useQueryClient()

const name = ref('')
const problem = ref('')

watch(
  [open, () => props.album],
  () => {
    if (!open.value) return
    problem.value = ''
    name.value = props.album.name
  },
  { immediate: true },
)

async function rename() {
  try {
    await editAlbum(props.album.id, { kind: 'renameAlbum', revision: props.album.revision, name: name.value })
    await client.invalidateQueries({ queryKey: keys.album(props.album.id) })
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
    <p v-if="problem" class="warning-chip" role="alert">{{ problem }}</p>
    <p class="form-text">
      Nominal is not real: measure the clear inside of one pocket of each size, width first. Pieces are cut to the
      nominal size, or to the clear size less the ease when that is smaller. Leave a pocket empty if you have not
      measured it.
    </p>
    <ProtectorMeasures
      v-for="p in album.protectors"
      :key="p.id"
      :album="album"
      :protector="p"
      class="border rounded p-3 mb-3"
    />
  </BModal>
</template>
