<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, reactive, ref } from 'vue'
import { answer, api, type AlbumView, type ContributorLinkView } from '../../api/client'
import { useAct } from '../../shared/act'
import { useBusy } from '../../shared/busy'
import { useNotices } from '../../shared/notices'
import { keys } from '../../shared/queries'
import { counted } from '../../shared/words'
import { useMe } from '../household/queries'
import { useUnit } from '../placing/unit'

/** Words and photos of other people: asked for by link, side by side when they come, taken in by a yes. */
const props = defineProps<{ album: AlbumView; unitId?: string }>()
const { data: me } = useMe()
const notices = useNotices()
const { act } = useAct(() => props.album.id)
const { unit } = useUnit(() => props.unitId ?? '')
const key = computed(() => keys.of(props.album.id, 'contributions'))
const path = computed(() => ({ path: { albumId: props.album.id } }))
const { data: asked, error } = useQuery({
  queryKey: key,
  queryFn: () => answer(api.GET('/api/albums/{albumId}/contributor-links', { params: path.value })),
})
const week = computed(() => props.album.units.find((u) => u.id === props.unitId))
/** Cards of the week or day that have no words yet. */
const blank = computed(() =>
  [
    ...(unit.value?.faces.flatMap((f) => f.pockets.map((p) => p.piece)) ?? []),
    ...(unit.value?.looseCards ?? []),
  ].filter((p) => p?.kind === 'card' && p.cardKind === 'journaling' && !p.words),
)
const form = reactive({ people: '', prompt: '', day: week.value?.firstDay ?? '', pieceId: '', mostPhotos: 0, days: 14 })
const links = ref<ContributorLinkView[]>([])

const { busy, run } = useBusy(() => key.value)
/** One a line: a name, and a mail address after a comma for whoever gets a letter. */
const people = computed(() =>
  form.people
    .split('\n')
    .map((line) => line.split(',').map((p) => p.trim()))
    .filter(([name]) => name)
    .map(([name, sendTo]) => ({ name: name!, sendTo: sendTo || null })),
)
const ask = () =>
  run(async () => {
    links.value = await answer(
      api.POST('/api/albums/{albumId}/contributor-links', {
        params: path.value,
        body: {
          people: people.value,
          prompt: form.prompt,
          day: form.pieceId ? null : form.day || null,
          unitId: form.pieceId ? (props.unitId ?? null) : null,
          pieceId: form.pieceId || null,
          mostPhotos: form.mostPhotos,
          days: form.days,
          site: window.location.origin,
        },
      }),
    )
    notices.done(`Made ${counted(links.value.length, 'link')}.`)
    form.people = form.prompt = ''
  })
const of = (linkId: string) => ({ path: { albumId: props.album.id, linkId } })
const decide = (linkId: string, state: 'waiting' | 'accepted' | 'declined') =>
  act(() =>
    answer(
      api.POST('/api/albums/{albumId}/contributor-links/{linkId}/decision', { params: of(linkId), body: { state } }),
    ),
  )
const revoke = (linkId: string) =>
  run(() => answer(api.DELETE('/api/albums/{albumId}/contributor-links/{linkId}', { params: of(linkId) })))
const full = (linkPath: string) => window.location.origin + linkPath
const states = { waiting: 'Waits for your yes', accepted: 'In the album', declined: 'Declined' }
</script>

<template>
  <div class="room">
    <section v-if="me?.state === 'notNeeded'" class="room-panel">
      <h2 class="h5">Contributions</h2>
      <p class="mb-0">
        Others write by link once this program belongs to a household: start it with <code>./start --household</code>.
      </p>
    </section>
    <template v-else>
      <section class="room-panel mb-3" aria-labelledby="ask-head">
        <h2 id="ask-head" class="h5">Ask for words</h2>
        <p>
          Each person gets a link for a phone, without an account. It shows your question and nothing of the album.
          Their words wait here for your yes.
        </p>
        <form class="row g-2 align-items-end" @submit.prevent="ask">
          <div class="col-md-4">
            <label for="ask-people" class="form-label mb-0">People, one a line (name, or name and mail address)</label>
            <BFormTextarea id="ask-people" v-model="form.people" rows="3" size="sm" required />
          </div>
          <div class="col-md-8">
            <label for="ask-prompt" class="form-label mb-0">Question</label>
            <BFormTextarea id="ask-prompt" v-model="form.prompt" rows="3" size="sm" maxlength="600" required />
          </div>
          <div class="col-auto">
            <label for="ask-day" class="form-label mb-0">About the day, optional</label>
            <BFormInput id="ask-day" v-model="form.day" type="date" size="sm" :disabled="form.pieceId !== ''" />
          </div>
          <div v-if="blank.length" class="col-auto">
            <label for="ask-card" class="form-label mb-0">For a card of {{ week?.title }}</label>
            <select id="ask-card" v-model="form.pieceId" class="form-select form-select-sm">
              <option value="">No card</option>
              <option v-for="(c, i) in blank" :key="c!.id" :value="c!.id">Card without words {{ i + 1 }}</option>
            </select>
          </div>
          <div class="col-auto">
            <label for="ask-photos" class="form-label mb-0">Photos each may add</label>
            <BFormInput
              id="ask-photos"
              v-model.number="form.mostPhotos"
              type="number"
              min="0"
              max="50"
              size="sm"
              required
            />
          </div>
          <div class="col-auto">
            <label for="ask-days" class="form-label mb-0">Links hold for, days</label>
            <BFormInput id="ask-days" v-model.number="form.days" type="number" min="1" max="90" size="sm" required />
          </div>
          <div class="col-auto">
            <BButton type="submit" size="sm" variant="primary" :disabled="busy || !people.length">Make links</BButton>
          </div>
        </form>
        <div v-if="links.length" class="mt-2">
          <h3 class="h6 mb-1">Send each person their link; it is shown only now</h3>
          <div v-for="l in links" :key="l.id" class="d-flex gap-2 align-items-center mb-1">
            <label :for="`link-${l.id}`" class="link-name mb-0">{{ l.person }}</label>
            <BFormInput :id="`link-${l.id}`" :model-value="full(l.path)" size="sm" readonly />
          </div>
        </div>
      </section>
      <p v-if="error" class="warning-chip" role="alert">! {{ error.message }}</p>
      <section v-for="q in asked ?? []" :key="q.id" class="room-panel mb-3" data-testid="asked">
        <h2 class="h6 question">{{ q.prompt }}</h2>
        <p class="visually-quiet small">{{ q.day ?? (q.forACard ? 'For a card' : 'About no day') }}</p>
        <ul class="answers list-unstyled mb-0">
          <li v-for="a in q.answers" :key="a.id" class="answer">
            <h3 class="h6 mb-1">{{ a.person }}</h3>
            <p v-if="a.words" class="words">{{ a.words }}</p>
            <p v-if="a.photos" class="small mb-1">{{ counted(a.photos, 'photo') }}</p>
            <p class="visually-quiet small mb-2">
              {{ a.words ? states[a.state] : a.holds ? 'Has not written yet' : 'The link does not hold any more' }}
            </p>
            <span class="d-flex flex-wrap gap-2">
              <template v-if="a.words && a.state !== 'accepted'">
                <BButton
                  size="sm"
                  variant="primary"
                  :aria-label="`Add as a story: ${a.person}`"
                  @click="decide(a.id, 'accepted')"
                  >Add as a story</BButton
                >
                <BButton
                  v-if="a.state === 'waiting'"
                  size="sm"
                  variant="outline-dark"
                  :aria-label="`Decline: ${a.person}`"
                  @click="decide(a.id, 'declined')"
                  >Decline</BButton
                >
              </template>
              <BButton
                v-if="a.holds"
                size="sm"
                variant="outline-dark"
                :aria-label="`Revoke link: ${a.person}`"
                :disabled="busy"
                @click="revoke(a.id)"
                >Revoke link</BButton
              >
            </span>
          </li>
        </ul>
      </section>
      <p v-if="asked && !asked.length" class="m-0">Nobody was asked yet.</p>
    </template>
  </div>
</template>

<style scoped>
.room {
  padding: 1rem 1.2rem;
  overflow-y: auto;
}
.question {
  white-space: pre-line;
  overflow-wrap: anywhere;
}
.answers {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(16rem, 100%), 1fr));
  gap: 0.8rem;
}
.answer {
  padding: 0.6rem 0.8rem;
  border: 1px solid var(--line);
  border-radius: 0.4rem;
}
.words {
  max-height: 16rem;
  overflow-y: auto;
  white-space: pre-line;
  overflow-wrap: anywhere;
}
.link-name {
  min-width: 7rem;
}
</style>
