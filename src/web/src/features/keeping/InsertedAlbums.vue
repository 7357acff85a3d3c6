<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { AlbumEdit, AlbumView } from '../../api/client'
import { useAct } from '../../shared/act'
import { editAlbum } from '../../shared/edits'
import { place } from '../../shared/places'
import { useInsertedAlbums } from './queries'

/** Albums of their own that are bound into this one, such as a trip into the weekly album, and back. */
const props = defineProps<{ album: AlbumView }>()
const { data } = useInsertedAlbums(() => props.album.id)
const { act } = useAct(() => props.album.id)
const busy = ref(false)
const offered = ref('')
const after = ref('')
const offer = computed(() => data.value?.offers.find((o) => o.albumId === offered.value))
watch(offer, (now) => now && (after.value = now.afterUnitId))
const shown = computed(
  () =>
    data.value &&
    (data.value.inserts.length || data.value.offers.length || data.value.boundInto || data.value.hosts.length),
)

async function edit(albumId: string, change: AlbumEdit) {
  busy.value = true
  try {
    await act(() => editAlbum(albumId, change))
  } finally {
    busy.value = false
  }
}
const between = ref(false)
async function insert(albumId: string, afterUnitId: string) {
  await edit(props.album.id, {
    kind: 'insertAlbum',
    revision: data.value!.revision,
    albumId,
    afterUnitId,
    between: between.value,
  })
  offered.value = ''
}
const remove = (albumId: string) =>
  edit(props.album.id, { kind: 'removeInsert', revision: data.value!.revision, albumId })
</script>

<template>
  <section v-if="shown" class="room-panel my-3" aria-labelledby="inserted-head" data-testid="inserted">
    <h3 id="inserted-head" class="h6">Albums in one binder</h3>
    <template v-if="data!.boundInto">
      <p class="mb-2">
        This album is inserted into
        <RouterLink :to="place(data!.boundInto.albumId, { kind: 'album' }, 'overview')">{{
          data!.boundInto.name
        }}</RouterLink>
        after {{ data!.boundInto.after }}: its pages count in that binder and in that book.
      </p>
      <BButton
        size="sm"
        variant="outline-dark"
        :disabled="busy"
        @click="
          edit(data!.boundInto!.albumId, {
            kind: 'removeInsert',
            revision: data!.boundInto!.revision,
            albumId: album.id,
          })
        "
        >Make it an album of its own</BButton
      >
    </template>
    <template v-for="h in data!.hosts" :key="h.albumId">
      <p class="mb-2">This album can go into the binder of {{ h.name }} as an insert, and out again at any time.</p>
      <BButton
        size="sm"
        variant="outline-dark"
        class="mb-2"
        :disabled="busy"
        @click="
          edit(h.albumId, {
            kind: 'insertAlbum',
            revision: h.revision,
            albumId: album.id,
            afterUnitId: h.afterUnitId,
            between: false,
          })
        "
        >Insert after {{ h.after }} of {{ h.name }}</BButton
      >
    </template>
    <ul v-if="data!.inserts.length" class="list-unstyled">
      <li v-for="i in data!.inserts" :key="i.albumId" class="d-flex gap-2 align-items-center mb-1">
        <RouterLink :to="place(i.albumId, { kind: 'album' }, 'overview')">{{ i.name }}</RouterLink>
        <span class="visually-quiet">{{ i.words }}</span>
        <BButton
          size="sm"
          variant="outline-dark"
          :disabled="busy"
          :aria-label="`Remove the insert ${i.name}`"
          @click="remove(i.albumId)"
          >Remove insert</BButton
        >
      </li>
    </ul>
    <form
      v-if="data!.offers.length"
      class="d-flex flex-wrap gap-2 align-items-end"
      @submit.prevent="insert(offered, after)"
    >
      <div>
        <label for="insert-album" class="form-label mb-0">Insert an album</label>
        <BFormSelect id="insert-album" v-model="offered" size="sm">
          <option value="">choose</option>
          <option v-for="o in data!.offers" :key="o.albumId" :value="o.albumId">{{ o.name }}</option>
        </BFormSelect>
      </div>
      <div>
        <label for="insert-where" class="form-label mb-0">Where</label>
        <BFormSelect id="insert-where" v-model="between" size="sm">
          <option :value="false">after</option>
          <option :value="true">between the facing pages of</option>
        </BFormSelect>
      </div>
      <div>
        <label for="insert-after" class="form-label mb-0">Week or day</label>
        <BFormSelect id="insert-after" v-model="after" size="sm">
          <option v-for="u in album.units" :key="u.id" :value="u.id">{{ u.title }}</option>
        </BFormSelect>
      </div>
      <BButton type="submit" size="sm" variant="outline-dark" :disabled="busy || !offered || !after"
        >Insert album</BButton
      >
    </form>
  </section>
</template>
