<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed, onMounted, ref } from 'vue'
import { answer, api, type ContributionView } from '../../api/client'
import { asBytes } from '../../shared/upload'
import { counted } from '../../shared/words'
import { useSecret } from './secret'

/** For somebody without an account, on a phone: what is asked, room for their words, and their photos of that day. */
const secret = useSecret()
const headers = { 'X-Zesty-Link': secret }
const asked = ref<ContributionView>()
/** Words that are not sent yet outlive a closed page. */
const draft = useLocalStorage(`zesty.words.${secret.slice(0, 12)}`, '')
const problem = ref('')
const said = ref('')
const busy = ref(false)
const left = computed(() => (asked.value ? asked.value.mostPhotos - asked.value.photos : 0))

async function run(what: () => Promise<unknown>) {
  busy.value = true
  problem.value = said.value = ''
  try {
    await what()
  } catch (refused) {
    problem.value = (refused as Error).message
  } finally {
    busy.value = false
  }
}
onMounted(() =>
  run(async () => {
    if (!secret) throw new Error('This address is not the whole link. Open it as it was sent.')
    asked.value = await answer(api.GET('/api/contribution', { headers }))
    draft.value ||= asked.value.words
  }),
)
const send = () =>
  run(async () => {
    asked.value = await answer(api.PUT('/api/contribution', { headers, body: { words: draft.value } }))
    draft.value = asked.value.words
    said.value = `Sent. Thank you! You can change your words until ${asked.value.from} takes them.`
  })
const bytes = (file: File) => {
  const sent = asBytes(file)
  return { ...sent, headers: { ...sent.headers, ...headers } }
}
const add = (event: Event) =>
  run(async () => {
    const input = event.target as HTMLInputElement
    const refusedFiles: string[] = []
    let added = 0
    for (const file of [...(input.files ?? [])].slice(0, left.value)) {
      const done = await answer(
        api.POST('/api/contribution/photos', { params: { query: { name: file.name } }, ...bytes(file) }),
      )
      if (done.added) added++
      else refusedFiles.push(`${done.fileName}: ${done.detail}`)
      asked.value = { ...asked.value!, photos: done.photos }
    }
    input.value = ''
    said.value = added ? `Added ${counted(added, 'photo')}.` : ''
    problem.value = refusedFiles.join(' ')
  })
const until = (instant: string) => new Date(instant).toLocaleDateString()
</script>

<template>
  <main class="door container py-4">
    <h1 class="h4 mb-3"><img src="/favicon.svg" alt="" width="32" height="32" class="me-2" />Zesty Pocket</h1>
    <template v-if="asked">
      <h2 class="h5">Hello {{ asked.person }}</h2>
      <p class="mb-1">{{ asked.from }} asks{{ asked.day ? ` about ${asked.day}` : '' }}:</p>
      <blockquote class="asked">{{ asked.prompt }}</blockquote>
      <p v-if="asked.taken" class="panel border rounded p-3">Your words are in the album. Thank you!</p>
      <form v-else @submit.prevent="send">
        <label for="words" class="form-label mb-0">Your words</label>
        <BFormTextarea id="words" v-model="draft" rows="8" :maxlength="asked.longestWords" required class="mb-2" />
        <BButton type="submit" variant="primary" class="w-100" :disabled="busy || !draft.trim()">{{
          asked.sent ? 'Send again' : 'Send words'
        }}</BButton>
      </form>
      <p v-if="said" class="mt-3 mb-0" role="status">{{ said }}</p>
      <p v-if="problem" class="warning-chip mt-3 mb-0" role="alert">! {{ problem }}</p>
      <section v-if="asked.mostPhotos" class="mt-4" aria-labelledby="photos-head">
        <h2 id="photos-head" class="h6">Your photos{{ asked.day ? ` of ${asked.day}` : '' }}</h2>
        <p class="mb-1">{{ asked.photos }} of {{ asked.mostPhotos }} added.</p>
        <template v-if="left > 0">
          <label for="photos" class="form-label mb-0">Add up to {{ counted(left, 'photo') }}</label>
          <input
            id="photos"
            type="file"
            class="form-control"
            accept="image/*"
            multiple
            :disabled="busy"
            @change="add"
          />
        </template>
      </section>
      <p class="visually-quiet small mt-4">
        Only {{ asked.from }} and the editors of the album see what you send. This link shows nothing of the album and
        holds until {{ until(asked.expiresAt) }}.
      </p>
    </template>
    <p v-else-if="problem" class="warning-chip mt-3" role="alert">! {{ problem }}</p>
  </main>
</template>

<style scoped>
.door {
  max-width: 34rem;
}
.asked {
  padding: 0.6rem 0.9rem;
  border-left: 4px solid var(--zest);
  background: var(--card);
  font-size: 1.1rem;
  white-space: pre-line;
  overflow-wrap: anywhere;
}
</style>
