<script setup lang="ts">
import { ref, watch } from 'vue'
import type { AlbumView } from '../../api/client'
import { useAct } from '../../shared/act'
import { editAlbum } from '../../shared/edits'

const open = defineModel<boolean>({ required: true })
const props = defineProps<{ album: AlbumView }>()
const { act } = useAct(() => props.album.id)
const name = ref('')
const field = ref<HTMLInputElement>()

watch(open, () => (name.value = props.album.name), { immediate: true })

async function rename() {
  const { id, revision } = props.album
  if (await act(() => editAlbum(id, { kind: 'renameAlbum', revision, name: name.value }))) open.value = false
}
</script>

<template>
  <BModal
    v-model="open"
    title-tag="h2"
    title-class="h5 mb-0"
    title="Rename the album"
    no-footer
    @shown="field?.focus()"
  >
    <form @submit.prevent="rename">
      <label for="album-name-field" class="form-label">Album name</label>
      <input id="album-name-field" ref="field" v-model="name" class="form-control" maxlength="200" />
      <div class="d-flex justify-content-end gap-2 mt-3">
        <BButton variant="outline-dark" @click="open = false">Cancel</BButton>
        <BButton type="submit" variant="primary">Rename</BButton>
      </div>
    </form>
  </BModal>
</template>
