<script setup lang="ts">
// Each cause that is commoner or rarer here than the shipped knowledge says, and by how many lessons.
import { computed } from 'vue'
import { useKnowledge } from '@/api/knowledge'
import LearnedChoices from '@/casebook/LearnedChoices.vue'
import { useLearned } from '@/casebook/useLearned'
import { dayWord } from '@/ui/dates'
import StateMessage from '@/ui/StateMessage.vue'
import WhenLoaded from '@/ui/WhenLoaded.vue'
import { capital, count } from '@/ui/words'

const known = useKnowledge()
const { learned, error, refetch, choose } = useLearned()
const percent = (part: number) => `${(100 * part).toFixed(part < 0.0995 ? 1 : 0)} %`
const most = computed(() =>
  Math.max(...(learned.value?.moved ?? []).flatMap((m) => [m.shipped, m.here]), 0.01),
)
const width = (part: number) => `${String((100 * part) / most.value)}%`
const missing = computed(() =>
  learned.value ? Math.max(0, learned.value.least - learned.value.outcomes) : 0,
)
function hold(cause: string, yes: boolean): void {
  const held = (learned.value?.moved ?? []).flatMap((m) => (m.held ? [m.cause] : []))
  void choose({ held: yes ? [...held, cause] : held.filter((c) => c !== cause) })
}
</script>

<template>
  <WhenLoaded v-slot="{ data }" :data="learned" :error="error" @retry="refetch">
    <section aria-label="What was learned" data-testid="learned">
      <p v-if="data.waiting" role="status">
        {{ capital(count(data.waiting, 'lesson')) }} still to be studied; this goes on by itself.
      </p>
      <StateMessage
        v-if="data.outcomes === 0"
        inside
        kind="empty"
        :title="`No outcome ${data.since ? `since ${dayWord(data.since)} ` : ''}is known yet.`"
        hint="Fix a measure and hit a retest, or enter at the next lesson what came back: each is an outcome."
      />
      <template v-else>
        <p class="lead">
          {{ data.said[0] }}
          <template v-if="missing">
            Nothing moves before {{ data.least }} are known: {{ missing }} more.
          </template>
          <template v-else-if="!data.moved.length">{{ data.said[1] }}</template>
        </p>
        <p v-for="s in data.said.slice(1 + data.moved.length)" v-show="data.moved.length" :key="s">
          {{ s }}
        </p>
        <table v-if="data.moved.length">
          <thead>
            <tr>
              <th scope="col">Cause</th>
              <th scope="col">Of students, as shipped and here</th>
              <th scope="col">Expected</th>
              <td></td>
            </tr>
          </thead>
          <tbody>
            <tr v-for="m in data.moved" :key="m.cause" :data-testid="`moved-${m.cause}`">
              <td class="strong">{{ known.cause(m.cause)?.name ?? m.cause }}</td>
              <td>
                <span class="pair" aria-hidden="true">
                  <span class="shipped" :style="{ width: width(m.shipped) }" />
                  <span :class="['here', { held: m.held }]" :style="{ width: width(m.here) }" />
                </span>
                {{ percent(m.shipped) }} → {{ percent(m.here)
                }}<span v-if="m.held" class="quiet">; held as shipped</span>
              </td>
              <td>in {{ m.expected.toFixed(1) }} of {{ data.students }}</td>
              <td>
                <v-btn
                  variant="text"
                  :aria-label="`${m.held ? 'Let it move' : 'Hold it still'}: ${known.cause(m.cause)?.name ?? ''}`"
                  @click="hold(m.cause, !m.held)"
                  >{{ m.held ? 'Let it move' : 'Hold it still' }}</v-btn
                >
              </td>
            </tr>
          </tbody>
        </table>
        <p class="quiet">
          A lesson teaches with all that was seen in it and with what became of its decision, never
          by the decision alone. What chance would do moves nothing, and nothing moves by more than
          a factor of four.
        </p>
      </template>
      <LearnedChoices />
      <p v-if="data.outcomes" class="files">
        <v-btn href="/api/casebook/cases.zip" download>Save the cases</v-btn>
        <v-btn href="/api/casebook/learned.json" download>Save what was learned</v-btn>
        <span class="quiet">Both without names and notes.</span>
      </p>
    </section>
  </WhenLoaded>
</template>

<style scoped>
.lead {
  font-size: var(--text-lead);
  margin-bottom: 10px;
}
table {
  width: 100%;
  border-collapse: collapse;
  margin-bottom: 12px;
}
th,
td {
  text-align: left;
  padding: 8px 12px 8px 0;
  border-bottom: 1px solid var(--line);
}
.pair {
  display: grid;
  gap: 3px;
  width: min(260px, 30vw);
  margin-bottom: 3px;
}
.pair span {
  height: 7px;
  min-width: 3px;
  border-radius: 2px;
}
.shipped {
  background: var(--line);
}
.here {
  background: var(--slate);
}
.here.held {
  opacity: 0.3;
}
.files {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
  margin-top: 14px;
}
@media (max-width: 700px) {
  thead {
    display: none;
  }
  tr {
    display: grid;
    grid-template-columns: 1fr auto;
    align-items: center;
    border-bottom: 1px solid var(--line);
  }
  td {
    border-bottom: none;
  }
  .pair {
    width: 46vw;
  }
}
</style>
