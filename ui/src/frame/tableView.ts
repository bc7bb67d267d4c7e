import { computed, ref, watch, type ComputedRef, type Ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'

/** The column that rows are sorted by; without one they stay in the order that they come in. */
export interface Order {
    by?: string
    descends: boolean
}

export interface TableView<T> {
    find: Ref<string>
    order: Ref<Order>
    shown: ComputedRef<T[]>
}

type Sortable = string | number | bigint

/** Rows that contain all words, in an order; rows that are equal, and those without a value at the end, stay as they come. */
export function arrangedRows<T>(
    rows: T[],
    find: string,
    order: Order,
    text: (row: T) => string,
    columns: Record<string, (row: T) => Sortable | null | undefined>,
): T[] {
    const words = find.toLowerCase().split(/\s+/).filter(Boolean)
    const found = words.length
        ? rows.filter((row) => {
              const all = text(row).toLowerCase()
              return words.every((word) => all.includes(word))
          })
        : rows
    const key = order.by ? columns[order.by] : undefined
    if (!key) {
        return found
    }
    const sign = order.descends ? -1 : 1
    return found
        .map((row) => ({ row, value: key(row) ?? undefined }))
        .sort((one, other) =>
            one.value === undefined || other.value === undefined
                ? Number(one.value === undefined) - Number(other.value === undefined)
                : sign * compared(one.value, other.value),
        )
        .map((each) => each.row)
}

/** Numbers within texts count as numbers: row[9] comes before row[10]. */
function compared(one: Sortable, other: Sortable): number {
    if (typeof one === 'string' || typeof other === 'string') {
        return String(one).localeCompare(String(other), 'en', { numeric: true })
    }
    return one < other ? -1 : Number(one > other)
}

/** What is found and in which order, kept in the address, so that a link or a reload shows the same. */
export function useTableView<T>(
    rows: () => T[],
    text: (row: T) => string,
    columns: Record<string, (row: T) => Sortable | null | undefined>,
): TableView<T> {
    const route = useRoute()
    const router = useRouter()
    const find = ref(String(route.query.find ?? ''))
    const wanted = String(route.query.sort ?? '')
    const order = ref<Order>(
        wanted in columns
            ? { by: wanted, descends: route.query.order === 'descending' }
            : { descends: false },
    )
    const path = route.path
    watch([find, order], () => {
        if (route.path !== path) {
            return
        }
        const query = { ...route.query }
        delete query.find
        delete query.sort
        delete query.order
        const { by, descends } = order.value
        void router.replace({
            query: {
                ...query,
                ...(find.value ? { find: find.value } : {}),
                ...(by ? { sort: by, ...(descends ? { order: 'descending' } : {}) } : {}),
            },
            hash: route.hash,
        })
    })
    const shown = computed(() => arrangedRows(rows(), find.value, order.value, text, columns))
    return { find, order, shown }
}

/** The order after a press on a column: ascending, descending, then as it comes. */
export function nextOrder(order: Order, by: string): Order {
    if (order.by !== by) {
        return { by, descends: false }
    }
    return order.descends ? { descends: false } : { by, descends: true }
}
