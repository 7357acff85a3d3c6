<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, reactive, ref } from 'vue'
import { answer, api, type AlbumView } from '../../api/client'
import { useBusy } from '../../shared/busy'
import { useNotices } from '../../shared/notices'
import { keys } from '../../shared/queries'
import { counted } from '../../shared/words'
import { useMe } from './queries'

/** Who may come to this album: invited with private links, given another role, sent away at once. */
const props = defineProps<{ album: AlbumView }>()
const { data: me } = useMe()
const notices = useNotices()
const owner = computed(() => me.value?.state === 'signedIn' && props.album.role === 'owner')
const key = computed(() => keys.of(props.album.id, 'sharing'))
const path = computed(() => ({ path: { albumId: props.album.id } }))
const { data: sharing, error } = useQuery({
  queryKey: key,
  queryFn: () => answer(api.GET('/api/albums/{albumId}/sharing', { params: path.value })),
  enabled: owner,
})
const asked = reactive({ for: '', role: 'reader' as 'reader' | 'editor', days: 7, mostUses: 1, sendTo: '' })
const link = ref('')

const { busy, run } = useBusy(() => key.value)
const invite = () =>
  run(async () => {
    const made = await answer(
      api.POST('/api/albums/{albumId}/invitations', {
        params: path.value,
        body: { ...asked, site: window.location.origin },
      }),
    )
    link.value = window.location.origin + made.path
    notices.done(asked.sendTo ? `Wrote a letter to ${asked.sendTo}.` : `Made a link for ${made.for}.`)
    asked.for = asked.sendTo = ''
  })
const revoke = (id: string, name: string) =>
  run(
    () =>
      answer(
        api.DELETE('/api/albums/{albumId}/invitations/{invitationId}', {
          params: { path: { albumId: props.album.id, invitationId: id } },
        }),
      ),
    `The invitation for ${name} does not hold any more.`,
  )
const member = (id: string) => ({ path: { albumId: props.album.id, memberId: id } })
const setRole = (id: string, role: 'reader' | 'editor') =>
  run(() => answer(api.PUT('/api/albums/{albumId}/members/{memberId}', { params: member(id), body: { role } })))
const remove = (id: string, name: string) =>
  run(
    () => answer(api.DELETE('/api/albums/{albumId}/members/{memberId}', { params: member(id) })),
    `${name} cannot open this album any more.`,
  )
const day = (instant: string) => new Date(instant).toLocaleDateString()
const at = (instant: string) => new Date(instant).toLocaleString()
</script>

<template>
  <div class="room">
    <section v-if="me?.state === 'notNeeded'" class="room-panel">
      <h2 class="h5">Sharing</h2>
      <p class="mb-0">
        Nobody signs in here, so there is nobody to share with. Start the program with
        <code>./start --household</code>; then every person has an account, and you invite them to this album.
      </p>
    </section>
    <section v-else-if="me && !owner" class="room-panel">
      <h2 class="h5">Sharing</h2>
      <p class="mb-0">Only the owner of this album shares it. Ask the owner to invite somebody.</p>
    </section>
    <template v-else-if="sharing">
      <section class="room-panel mb-3" aria-labelledby="members-head">
        <h2 id="members-head" class="h5">Who may come</h2>
        <p v-if="!sharing.members.length" class="mb-0">Nobody but you.</p>
        <table v-else class="table table-sm mb-0">
          <thead>
            <tr>
              <th scope="col">Name</th>
              <th scope="col">Role</th>
              <th scope="col">Since</th>
              <th scope="col"><span class="visually-hidden">Remove</span></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="m in sharing.members" :key="m.keeperId">
              <td>{{ m.name }}</td>
              <td>
                <select
                  class="form-select form-select-sm role"
                  :aria-label="`Role of ${m.name}`"
                  :value="m.role"
                  :disabled="busy"
                  @change="setRole(m.keeperId, ($event.target as HTMLSelectElement).value as 'reader' | 'editor')"
                >
                  <option value="reader">Reader</option>
                  <option value="editor">Editor</option>
                </select>
              </td>
              <td>{{ day(m.since) }}</td>
              <td class="text-end">
                <BButton
                  size="sm"
                  variant="outline-dark"
                  :disabled="busy"
                  :aria-label="`Remove ${m.name}`"
                  @click="remove(m.keeperId, m.name)"
                  >Remove</BButton
                >
              </td>
            </tr>
          </tbody>
        </table>
      </section>
      <section class="room-panel mb-3" aria-labelledby="invite-head">
        <h2 id="invite-head" class="h5">Invite somebody</h2>
        <p>
          A reader leafs through the finished pages and comments on them. An editor works on the album as you do,
          without its costs, backups and sharing.
        </p>
        <form class="d-flex flex-wrap gap-2 align-items-end" @submit.prevent="invite">
          <div>
            <label for="invite-for" class="form-label mb-0">For</label>
            <BFormInput id="invite-for" v-model="asked.for" size="sm" maxlength="80" required />
          </div>
          <div>
            <label for="invite-role" class="form-label mb-0">Role</label>
            <select id="invite-role" v-model="asked.role" class="form-select form-select-sm">
              <option value="reader">Reader</option>
              <option value="editor">Editor</option>
            </select>
          </div>
          <div>
            <label for="invite-days" class="form-label mb-0">Holds for, days</label>
            <BFormInput
              id="invite-days"
              v-model.number="asked.days"
              type="number"
              min="1"
              max="90"
              size="sm"
              required
            />
          </div>
          <div>
            <label for="invite-uses" class="form-label mb-0">For how many people</label>
            <BFormInput
              id="invite-uses"
              v-model.number="asked.mostUses"
              type="number"
              min="1"
              max="50"
              size="sm"
              required
            />
          </div>
          <div>
            <label for="invite-to" class="form-label mb-0">Mail address, optional</label>
            <BFormInput id="invite-to" v-model="asked.sendTo" type="email" size="sm" />
          </div>
          <BButton type="submit" size="sm" variant="primary" :disabled="busy">Make invitation</BButton>
        </form>
        <p v-if="link" class="mt-2 mb-0">
          <label for="invite-link" class="form-label mb-0">Send this link; it is shown only now</label>
          <BFormInput id="invite-link" :model-value="link" size="sm" readonly />
        </p>
        <template v-if="sharing.invitations.length">
          <h3 class="h6 mt-3">Open invitations</h3>
          <ul class="list-unstyled mb-0">
            <li v-for="i in sharing.invitations" :key="i.id" class="d-flex gap-2 align-items-center mb-1">
              <span
                >{{ i.for }}, {{ i.role === 'editor' ? 'editor' : 'reader' }}, until {{ day(i.expiresAt) }}, used by
                {{ i.uses }} of {{ counted(i.mostUses, 'person', 'people') }}</span
              >
              <BButton
                size="sm"
                variant="outline-dark"
                :disabled="busy"
                :aria-label="`Revoke the invitation for ${i.for}`"
                @click="revoke(i.id, i.for)"
                >Revoke</BButton
              >
            </li>
          </ul>
        </template>
      </section>
      <section class="room-panel" aria-labelledby="log-head">
        <h2 id="log-head" class="h5">What happened</h2>
        <ul class="list-unstyled mb-0">
          <li v-for="(e, i) in sharing.log" :key="i">{{ at(e.at) }}: {{ e.by ? `${e.by} ` : '' }}{{ e.what }}</li>
        </ul>
        <p v-if="!sharing.log.length" class="mb-0">Nothing yet.</p>
      </section>
    </template>
    <p v-else-if="error" class="warning-chip" role="alert">! {{ error.message }}</p>
  </div>
</template>

<style scoped>
.room {
  padding: 1rem 1.2rem;
  overflow-y: auto;
}
.role {
  width: auto;
}
</style>
