<script setup lang="ts">
import { ref } from 'vue'
import { answer, api, type AlbumView, type CommentView } from '../../api/client'
import { useBusy } from '../../shared/busy'
import { useNotices } from '../../shared/notices'
import { keys } from '../../shared/queries'

/** What is said about a spread: written, marked as done, deleted and brought back. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ album: AlbumView; unitId: string; comments: CommentView[] }>()
const notices = useNotices()
const words = ref('')
const titleOf = (id: string) => props.album.units.find((u) => u.id === id)?.title ?? 'this album'
const mayMark = (c: CommentView) => c.mine || props.album.role !== 'reader'
const mayDelete = (c: CommentView) => c.mine || props.album.role === 'owner'

// Buttons are not disabled meanwhile: one that is loses the focus, and with it the keys that close the panel.
const { busy, run } = useBusy(() => keys.of(props.album.id, 'comments'))
const add = () =>
  run(async () => {
    await answer(
      api.POST('/api/units/{id}/comments', { params: { path: { id: props.unitId } }, body: { words: words.value } }),
    )
    words.value = ''
  })
const change = (c: CommentView, done: boolean, deleted: boolean) =>
  run(() =>
    answer(
      api.PUT('/api/units/{id}/comments/{commentId}', {
        params: { path: { id: c.unitId, commentId: c.id } },
        body: { done, deleted },
      }),
    ),
  )
async function remove(c: CommentView) {
  await change(c, c.done, true)
  notices.done('Deleted the comment.', () => change(c, c.done, false))
}
const at = (instant: string) => new Date(instant).toLocaleString()
</script>

<template>
  <BOffcanvas id="comments-panel" v-model="open" placement="end">
    <template #header="{ hide }">
      <h2 id="comments-panel-offcanvas-label" class="h5 offcanvas-title">Comments on {{ titleOf(unitId) }}</h2>
      <button type="button" class="btn-close ms-auto" aria-label="Close" @click="hide('close')"></button>
    </template>
    <ul class="list-unstyled" data-testid="comments">
      <li v-for="c in comments" :key="c.id" class="comment" :class="{ done: c.done }">
        <p class="mb-1">{{ c.words }}</p>
        <p class="visually-quiet small mb-1">
          {{ c.by }}, {{ unitId ? '' : `${titleOf(c.unitId)}, ` }}{{ at(c.madeAt) }}{{ c.done ? ', done' : '' }}
        </p>
        <span class="d-flex gap-2">
          <BButton
            v-if="mayMark(c)"
            size="sm"
            variant="outline-dark"
            :aria-label="`${c.done ? 'Open again' : 'Mark as done'}: ${c.words}`"
            @click="change(c, !c.done, false)"
            >{{ c.done ? 'Open again' : 'Mark as done' }}</BButton
          >
          <BButton v-if="mayDelete(c)" size="sm" variant="link" :aria-label="`Delete: ${c.words}`" @click="remove(c)"
            >Delete</BButton
          >
        </span>
      </li>
    </ul>
    <p v-if="!comments.length">Nothing is said here yet.</p>
    <form v-if="unitId" @submit.prevent="add">
      <label for="comment" class="form-label mb-0">Comment</label>
      <BFormTextarea id="comment" v-model="words" rows="3" maxlength="2000" required class="mb-2" />
      <BButton type="submit" size="sm" variant="primary" :disabled="busy || !words.trim()">Add comment</BButton>
    </form>
  </BOffcanvas>
</template>

<style scoped>
.comment {
  padding: 0.5rem 0.7rem;
  margin-bottom: 0.6rem;
  border: 1px solid var(--line);
  border-radius: 0.4rem;
  overflow-wrap: anywhere;
}
.comment.done > p:first-child {
  text-decoration: line-through;
}
</style>
