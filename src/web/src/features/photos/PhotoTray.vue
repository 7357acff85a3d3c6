<script setup lang="ts">
import { ref } from 'vue'
import type { PhotoView } from '../../api/client'
import { dayText } from '../../shared/dates'
import { useAlbum } from '../albums/queries'
import { usePhotoEdits } from './edits'

const props = defineProps<{ title: string; testId: string; hint: string; photos: PhotoView[]; albumId: string }>()
const edit = usePhotoEdits(() => props.albumId)
const dayFor = ref<Record<string, string>>({})
const { data: album } = useAlbum(() => props.albumId)
const long = (day: string) => dayText(day, album.value?.dateOrder ?? 'dayMonth')
</script>

<template>
  <section v-if="photos.length" class="mt-4" :aria-label="title" :data-testid="testId">
    <h2 class="h5">
      {{ title }}
      <small class="visually-quiet fw-normal">{{ photos.length }}{{ photos.length === 60 ? ' or more' : '' }}</small>
    </h2>
    <p class="form-text mt-0">{{ hint }}</p>
    <ul class="tray-list">
      <li v-for="photo in photos" :key="photo.id" class="tray-photo">
        <img :src="photo.picture + '512'" :alt="`Photo ${photo.fileName}`" loading="lazy" />
        <div class="min-w-0">
          <div class="text-break">{{ photo.fileName }}</div>
          <div class="visually-quiet small">
            {{ photo.verdict === 'leave' ? 'left out' : photo.day ? long(photo.day) : 'no date in the file' }}
          </div>
          <button
            v-if="photo.verdict === 'leave'"
            type="button"
            class="btn btn-sm btn-outline-dark mt-1"
            @click="edit([photo], { kind: 'judgePhoto', verdict: 'undecided' })"
          >
            Keep again
          </button>
          <template v-else>
            <button
              v-if="photo.guessedDay && !photo.day"
              type="button"
              class="btn btn-sm btn-outline-dark mt-1"
              @click="edit([photo], { kind: 'datePhoto', day: photo.guessedDay })"
            >
              Guess: {{ long(photo.guessedDay) }}
            </button>
            <div class="d-flex gap-1 mt-1">
              <input
                v-model="dayFor[photo.id]"
                type="date"
                class="form-control form-control-sm"
                :aria-label="`Day of ${photo.fileName}`"
              />
              <button
                type="button"
                class="btn btn-sm btn-outline-dark"
                :disabled="!dayFor[photo.id]"
                @click="edit([photo], { kind: 'datePhoto', day: dayFor[photo.id]! })"
              >
                Move there
              </button>
            </div>
          </template>
        </div>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.tray-list {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(19rem, 1fr));
  gap: 0.75rem;
}
.tray-photo {
  display: flex;
  gap: 0.75rem;
  padding: 0.5rem;
  background: var(--card);
  border: 1px solid var(--line);
  border-radius: 0.5rem;
}
.tray-photo img {
  width: 84px;
  height: 84px;
  object-fit: cover;
  border-radius: 3px;
  flex: none;
}
</style>
