<script setup lang="ts">
import { nextTick, useTemplateRef, watch } from 'vue'
import type { AlbumView, PrintJobView } from '../../api/client'
import ProgressLine from '../../shared/ProgressLine.vue'
import LeftoversList from './LeftoversList.vue'

/** A print from its first page to what is left of its sheets. */
const props = defineProps<{ job: PrintJobView; album: AlbumView; toCut: number }>()
defineEmits<{ cancel: []; allCut: [] }>()

/** What has become of it stands below a long form: it is brought into sight. */
const panel = useTemplateRef('panel')
watch(
  () => props.job.state,
  () => void nextTick(() => panel.value?.scrollIntoView({ block: 'nearest' })),
)
</script>

<template>
  <div ref="panel" class="mt-3" data-testid="job">
    <template v-if="job.state === 'waiting' || job.state === 'running'">
      <ProgressLine
        :done="job.pagesDone"
        :total="job.pagesTotal"
        :label="`${job.pagesDone} of ${job.pagesTotal} pages drawn`"
      />
      <p class="my-1" role="status">{{ job.pagesDone }} of {{ job.pagesTotal }} pages drawn</p>
      <BButton size="sm" variant="outline-dark" @click="$emit('cancel')">Cancel</BButton>
    </template>
    <template v-else-if="job.state === 'done'">
      <p role="status" class="mb-1">
        <a class="btn btn-primary" :href="`/api/print-jobs/${job.id}/file`" data-testid="download" download>
          Download the sheets (PDF)
        </a>
      </p>
      <BButton v-if="toCut" size="sm" variant="outline-dark" class="mb-2" @click="$emit('allCut')"
        >All of it is cut: tick off</BButton
      >
      <p class="mb-1 small">What is left of the sheets can be printed on again:</p>
      <LeftoversList :job="job.id" :measures="album.measures" />
    </template>
    <p v-if="job.state === 'cancelled'" role="status">Cancelled. Nothing was made.</p>
    <p v-if="job.state === 'failed'" class="warning-chip" role="alert">{{ job.problem }}</p>
  </div>
</template>
