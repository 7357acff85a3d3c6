<script setup lang="ts">
import { computed } from 'vue'
import type { AlbumView } from '../../api/client'
import { useKeepsakes } from './queries'
import { unitPlace } from '../../shared/places'

const props = defineProps<{ album: AlbumView }>()
const { data: keepsakes } = useKeepsakes(() => props.album.id)
const envelope = computed(() => keepsakes.value?.filter((k) => k.inEnvelope) ?? [])
const others = computed(() => keepsakes.value?.filter((k) => !k.inEnvelope) ?? [])
</script>

<template>
  <div class="room" data-testid="keepsakes-room">
    <p v-if="keepsakes && keepsakes.length === 0" class="room-panel">
      No keepsakes yet. Measure a ticket or a receipt on the Gather tab of its week or day; what fits goes into a pocket
      itself, what is too large goes into the envelope.
    </p>
    <section
      v-for="[title, list, hint] in [
        ['The envelope', envelope, 'Write this list on the envelope, so that nobody has to open it to know.'],
        ['In pockets and trays', others, ''],
      ] as const"
      :key="title"
    >
      <template v-if="list.length">
        <h2 class="h5">
          {{ title }} <small class="visually-quiet fw-normal">{{ list.length }}</small>
        </h2>
        <p v-if="hint" class="form-text mt-0">{{ hint }}</p>
        <div class="room-panel mb-3">
          <table class="table table-sm mb-0">
            <thead>
              <tr>
                <th scope="col">Keepsake</th>
                <th scope="col">Where from</th>
                <th scope="col">Size</th>
                <th scope="col">Thickness</th>
                <th scope="col">Note</th>
                <th scope="col">Where it is</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="k in list" :key="k.id">
                <td>{{ k.name }}</td>
                <td>
                  <RouterLink :to="unitPlace(album.id, k.unitId, 'gather')">{{ k.unitTitle }}</RouterLink>
                  {{ k.dayLabel ? `(${k.dayLabel})` : '' }}
                </td>
                <td>{{ k.size }}</td>
                <td>{{ k.thickness }}</td>
                <td>{{ k.note }}</td>
                <td>{{ k.inEnvelope ? 'in the envelope' : (k.pocket ?? 'in the tray') }}</td>
              </tr>
            </tbody>
          </table>
        </div>
      </template>
    </section>
  </div>
</template>
