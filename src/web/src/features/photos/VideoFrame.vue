<script setup lang="ts">
import { useDebounce } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { VideoView } from '../../api/client'

/** A video frame by frame: proposals, a slider, steps of one frame, and the frames that are chosen. */
const props = defineProps<{ video: VideoView; chosen: number[] }>()
const emit = defineEmits<{ toggle: [at: number] }>()

const at = ref(props.video.proposed[0] ?? 0)
// While the slider moves, not every position on the way is read from the video.
const settled = useDebounce(at, 120)
const last = computed(() => Math.max(0, props.video.milliseconds - 1))
const frame = computed(() => 1000 / (props.video.framesPerSecond || 25))
const step = (frames: number) =>
  (at.value = Math.round(Math.min(last.value, Math.max(0, at.value + frames * frame.value))))

const picture = (ms: number, side: number) => `/api/videos/${props.video.id}/frame?at=${ms}&side=${side}`
const time = (ms: number) => `${Math.floor(ms / 60_000)}:${((ms % 60_000) / 1000).toFixed(1).padStart(4, '0')}`
const shown = computed(() => [...new Set([...props.video.proposed, ...props.chosen])].sort((a, b) => a - b))
</script>

<template>
  <div class="frame-room">
    <figure class="m-0">
      <img class="large" :src="picture(settled, 960)" :alt="`Frame at ${time(settled)}`" />
      <figcaption class="d-flex flex-wrap gap-2 align-items-center mt-2">
        <BButton size="sm" variant="outline-dark" @click="step(-1)">‹ One frame back</BButton>
        <BButton size="sm" variant="outline-dark" @click="step(1)">One frame on ›</BButton>
        <span class="ms-auto">{{ time(at) }}</span>
        <BButton size="sm" variant="outline-dark" :aria-pressed="chosen.includes(at)" @click="emit('toggle', at)">{{
          chosen.includes(at) ? 'Chosen' : 'Choose this frame'
        }}</BButton>
      </figcaption>
      <label for="video-at" class="visually-hidden">Position in the video</label>
      <input id="video-at" v-model.number="at" type="range" class="form-range" min="0" :max="last" step="10" />
    </figure>
    <div>
      <p class="form-label mb-1">Proposed: sharp, and different from each other</p>
      <ul class="frames">
        <li v-for="ms in shown" :key="ms">
          <button type="button" class="frame" :aria-label="`Show the frame at ${time(ms)}`" @click="at = ms">
            <img :src="picture(ms, 320)" alt="" loading="lazy" />
          </button>
          <label class="form-check m-0">
            <input
              type="checkbox"
              class="form-check-input"
              :checked="chosen.includes(ms)"
              :aria-label="`Choose the frame at ${time(ms)}`"
              @change="emit('toggle', ms)"
            />
            <span class="form-check-label">{{ time(ms) }}{{ video.taken.includes(ms) ? ', in the album' : '' }}</span>
          </label>
        </li>
      </ul>
    </div>
  </div>
</template>

<style scoped>
.frames .form-check-input {
  width: 1.5rem;
  height: 1.5rem;
  margin: 0 0.4rem 0 -1.5rem;
}
.frame-room {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 1rem;
}
@media (max-width: 800px) {
  .frame-room {
    grid-template-columns: minmax(0, 1fr);
  }
}
.large {
  width: 100%;
  max-height: 46vh;
  object-fit: contain;
  background: #1c1a18;
  border-radius: 6px;
}
.frames {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(120px, 1fr));
  gap: 0.6rem;
  padding: 0;
  list-style: none;
}
.frame {
  display: block;
  width: 100%;
  padding: 0;
  border: 1px solid var(--line);
  background: none;
}
.frame img {
  width: 100%;
  display: block;
}
</style>
