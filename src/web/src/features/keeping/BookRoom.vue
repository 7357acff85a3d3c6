<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answer, api, type AlbumView, type BookView } from '../../api/client'
import { useNotices } from '../../shared/notices'
import ProgressLine from '../../shared/ProgressLine.vue'
import { counted } from '../../shared/words'

/** The album out of its binder: to print as a book, to read on a screen, to send to family. */
const props = defineProps<{ album: AlbumView; unitIds: string[]; whole: boolean }>()
const notices = useNotices()
const form = ref<BookView['form']>('pages')
const light = ref(false)
const bookId = ref('')
const isOpen = (state: BookView['state']) => state === 'waiting' || state === 'running'
const { data: book } = useQuery({
  queryKey: computed(() => ['book', bookId.value]),
  queryFn: () => answer(api.GET('/api/books/{id}', { params: { path: { id: bookId.value } } })),
  enabled: computed(() => bookId.value !== ''),
  refetchInterval: (query) => (query.state.data && !isOpen(query.state.data.state) ? false : 400),
})
const busy = computed(() => !!book.value && isOpen(book.value.state))
const scope = computed(() =>
  props.whole
    ? 'the whole album'
    : props.unitIds.length === 1
      ? props.album.units.find((u) => u.id === props.unitIds[0])?.title
      : counted(props.unitIds.length, 'week or day', 'weeks or days'),
)
async function make() {
  try {
    const asked = await answer(
      api.POST('/api/albums/{id}/books', {
        params: { path: { id: props.album.id } },
        body: {
          requestKey: crypto.randomUUID(),
          form: form.value,
          light: light.value,
          unitIds: props.whole ? null : props.unitIds,
        },
      }),
    )
    bookId.value = asked.id
  } catch (refused) {
    notices.refused(refused)
  }
}
async function cancel() {
  try {
    await answer(api.POST('/api/books/{id}/cancel', { params: { path: { id: bookId.value } } }))
  } catch (refused) {
    notices.refused(refused)
  }
}
const size = (bytes: number) => (bytes >= 1e6 ? `${(bytes / 1e6).toFixed(1)} MB` : `${Math.ceil(bytes / 1e3)} kB`)
</script>

<template>
  <div class="room" data-testid="book">
    <section class="room-panel">
      <h2 class="h5 mb-1">Book</h2>
      <p>Pages in reading order with a cover, as they lie in the album. Nothing tells where a picture was taken.</p>
      <form class="d-flex flex-wrap gap-3 align-items-end" @submit.prevent="make">
        <div>
          <label for="book-form" class="form-label mb-0">Make</label>
          <BFormSelect id="book-form" v-model="form" size="sm">
            <option value="pages">PDF, page by page</option>
            <option value="spreads">PDF, facing pages together</option>
            <option value="flipThrough">Flip-through for a browser (HTML)</option>
            <option value="pictures">Single pictures (ZIP of JPEG)</option>
          </BFormSelect>
        </div>
        <BFormCheckbox v-model="light">Smaller pictures</BFormCheckbox>
        <BButton type="submit" size="sm" variant="primary" :disabled="busy">Create book</BButton>
        <span class="visually-quiet">of {{ scope }}</span>
      </form>
      <div v-if="book" class="mt-3" role="status" data-testid="book-job">
        <template v-if="busy">
          <ProgressLine
            :done="book.pagesDone"
            :total="book.pagesTotal"
            :label="`${book.pagesDone} of ${book.pagesTotal} pages drawn`"
          />
          <p class="my-1">{{ book.pagesDone }} of {{ book.pagesTotal }} pages drawn</p>
          <BButton size="sm" variant="outline-dark" @click="cancel">Cancel</BButton>
        </template>
        <p v-else-if="book.state === 'done'" class="mb-0">
          <a class="btn btn-primary btn-sm" :href="`/api/books/${book.id}/file`" data-testid="book-download" download
            >Download book</a
          >
          {{ counted(book.pagesTotal, 'page') }}, {{ size(book.bytes) }}
        </p>
        <p v-else-if="book.state === 'cancelled'" class="mb-0">Cancelled. Nothing was made.</p>
        <p v-else class="warning-chip mb-0">{{ book.problem }}</p>
      </div>
    </section>
  </div>
</template>
