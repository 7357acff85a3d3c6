<script setup lang="ts">
import { answer, api } from '../../api/client'
import { useNotices } from '../../shared/notices'
import { kinds, like, ofKind, type AlbumDraft, type Kind } from './draft'
import { useShelf } from './queries'

/** Step 1: what kind of album, what it is called, and whether it is set up like another. */
const draft = defineModel<AlbumDraft>({ required: true })
const { data: albums } = useShelf()
const notices = useNotices()

function choose(kind: Kind) {
  draft.value = { ...draft.value, ...ofKind(kind), likeId: '', designs: [] }
}

async function setUpLike(id: string) {
  if (!id) {
    draft.value = { ...draft.value, likeId: '' }
    return
  }
  try {
    const album = await answer(api.GET('/api/albums/{id}', { params: { path: { id } } }))
    draft.value = like(draft.value, album)
  } catch (refusal) {
    notices.refused(refusal)
  }
}
</script>

<template>
  <fieldset class="mb-3">
    <legend class="form-label fs-6">What kind of album?</legend>
    <div class="kinds">
      <label v-for="k in kinds" :key="k.key" class="kind" :class="{ on: draft.kind === k.key }">
        <span class="form-check m-0">
          <input
            type="radio"
            name="album-kind"
            class="form-check-input"
            :value="k.key"
            :checked="draft.kind === k.key"
            @change="choose(k.key)"
          />
          <span class="form-check-label fw-semibold">{{ k.name }}</span>
        </span>
        <span class="small visually-quiet">{{ k.hint }}</span>
      </label>
    </div>
  </fieldset>
  <label for="album-name" class="form-label">Name</label>
  <input id="album-name" v-model="draft.name" class="form-control" maxlength="200" autocomplete="off" />
  <template v-if="albums?.length">
    <label for="album-like" class="form-label mt-3">Start from</label>
    <BFormSelect
      id="album-like"
      :model-value="draft.likeId"
      aria-describedby="album-like-hint"
      @update:model-value="setUpLike($event as string)"
    >
      <option value="">an empty album</option>
      <option v-for="a in albums" :key="a.id" :value="a.id">
        {{ a.isDemo ? 'the sample' : 'a copy of' }} “{{ a.name }}”
      </option>
    </BFormSelect>
    <p id="album-like-hint" class="form-text mb-0">
      Another album gives its page designs, card styles and date style, not its photos and stories.
    </p>
  </template>
</template>

<style scoped>
.kinds {
  display: flex;
  flex-wrap: wrap;
  gap: 0.75rem;
}
.kind {
  flex: 1 1 20rem;
  padding: 0.5rem 0.75rem;
  border: 2px solid var(--line);
  border-radius: 0.5rem;
  cursor: pointer;
}
.kind.on {
  border-color: var(--zest);
  background: var(--zest-pale);
}
</style>
