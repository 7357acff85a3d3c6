<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answer, api, Refusal, type UnitView, type WayView } from '../../api/client'

/** Clearly different spreads of the same pieces, painted side by side with their scores. */
const props = defineProps<{ unit: UnitView }>()
const emit = defineEmits<{ choose: [things: WayView['things']] }>()
const open = defineModel<boolean>({ required: true })

const { data, error, isFetching } = useQuery({
  queryKey: computed(() => ['unit', props.unit.id, 'other-ways', props.unit.revision]),
  queryFn: () => answer(api.GET('/api/units/{id}/other-ways', { params: { path: { id: props.unit.id } } })),
  enabled: open,
  retry: false,
})
</script>

<template>
  <BModal v-model="open" size="xl" title="Other ways to lay this spread" title-tag="h2" title-class="h5" no-footer>
    <p v-if="isFetching" role="status">Looking for other ways …</p>
    <p v-else-if="error" class="warning-chip">
      ! {{ error instanceof Refusal ? error.message : 'The ways could not be painted. Close this and try again.' }}
    </p>
    <template v-else-if="data">
      <p class="form-text mt-0">
        Locked pockets, and prints that somebody framed or finished, stay where they are. You can undo your choice.
      </p>
      <ol class="ways">
        <li v-for="(way, i) in data" :key="i">
          <img :src="way.picture" :alt="`Way ${i + 1}: ${way.words}`" />
          <p class="m-0">
            <strong>{{ i === 0 ? 'Best by your priorities' : `Way ${i + 1}` }}</strong>
            <span class="visually-quiet"> · score {{ way.score }}</span>
          </p>
          <p class="small mb-2">{{ way.words }}</p>
          <BButton size="sm" :variant="i === 0 ? 'primary' : 'outline-dark'" @click="emit('choose', way.things)"
            >Use way {{ i + 1 }}</BButton
          >
        </li>
      </ol>
      <p v-if="data.length === 1">There is no clearly different way with these pieces.</p>
    </template>
  </BModal>
</template>
