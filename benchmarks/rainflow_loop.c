/* The yardstick: the four-point rainflow as one would write it in plain C, from samples to the whole table of cycles,
   with the residue as half cycles. The caller frees the table. */
#include <math.h>
#include <stdint.h>
#include <stdlib.h>

typedef struct { double *range, *mean, *count; int64_t *start, *end; int64_t cycles; } table;

static void add(table *t, double one, double other, double count, int64_t start, int64_t end)
{
    int64_t k = t->cycles++;
    t->range[k] = fabs(one - other);
    t->mean[k] = 0.5 * (one + other);
    t->count[k] = count;
    t->start[k] = start;
    t->end[k] = end;
}

int64_t rainflow(const double *samples, int64_t n, table *t)
{
    size_t size = (size_t)n + 1;
    double *stack = malloc(size * sizeof *stack);
    int64_t *place = malloc(size * sizeof *place);
    t->range = malloc(size * sizeof(double));
    t->mean = malloc(size * sizeof(double));
    t->count = malloc(size * sizeof(double));
    t->start = malloc(size * sizeof(int64_t));
    t->end = malloc(size * sizeof(int64_t));
    t->cycles = 0;
    int64_t depth = 1, last = 0;
    double level = samples[0];
    int rising = 0;
    stack[0] = level;
    place[0] = 0;
    for (int64_t i = 1; i <= n; i++) {
        double value = level;
        int up = rising;
        if (i < n) {
            value = samples[i];
            if (value == level) continue;
            up = value > level;
            if (last == 0 || up == rising) { last = i; level = value; rising = up; continue; }
        } else if (last == 0) break;
        stack[depth] = level;
        place[depth++] = last;
        while (depth >= 4) {
            double inner = fabs(stack[depth - 3] - stack[depth - 2]);
            if (inner > fabs(stack[depth - 2] - stack[depth - 1]) || inner > fabs(stack[depth - 4] - stack[depth - 3])) break;
            add(t, stack[depth - 3], stack[depth - 2], 1.0, place[depth - 3], place[depth - 2]);
            stack[depth - 3] = stack[depth - 1];
            place[depth - 3] = place[depth - 1];
            depth -= 2;
        }
        last = i; level = value; rising = up;
    }
    for (int64_t k = 1; k < depth; k++) add(t, stack[k - 1], stack[k], 0.5, place[k - 1], place[k]);
    free(stack);
    free(place);
    return t->cycles;
}

/* The same count, with only a sum of damage kept: N = knee_life (knee / range)^slope, two slopes. */
double damage(const double *samples, int64_t n, double knee, double knee_life, double above, double below)
{
    size_t size = (size_t)n + 1;
    double *stack = malloc(size * sizeof *stack), total = 0.0, level = samples[0];
    int64_t depth = 1, last = 0;
    int rising = 0;
    stack[0] = level;
    for (int64_t i = 1; i <= n; i++) {
        double value = level;
        int up = rising;
        if (i < n) {
            value = samples[i];
            if (value == level) continue;
            up = value > level;
            if (last == 0 || up == rising) { last = i; level = value; rising = up; continue; }
        } else if (last == 0) break;
        stack[depth++] = level;
        while (depth >= 4) {
            double inner = fabs(stack[depth - 3] - stack[depth - 2]);
            if (inner > fabs(stack[depth - 2] - stack[depth - 1]) || inner > fabs(stack[depth - 4] - stack[depth - 3])) break;
            total += pow(inner / knee, inner >= knee ? above : below);
            stack[depth - 3] = stack[depth - 1];
            depth -= 2;
        }
        last = i; level = value; rising = up;
    }
    for (int64_t k = 1; k < depth; k++) {
        double range = fabs(stack[k] - stack[k - 1]);
        total += 0.5 * pow(range / knee, range >= knee ? above : below);
    }
    free(stack);
    return total / knee_life;
}

/* The same count into a matrix of range and mean with even classes. */
void matrix(const double *samples, int64_t n, double low, double span, int64_t classes, double *cells)
{
    table t;
    int64_t cycles = rainflow(samples, n, &t);
    for (int64_t k = 0; k < cycles; k++) {
        int64_t row = (int64_t)(t.range[k] / span * classes), column = (int64_t)((t.mean[k] - low) / span * classes);
        cells[row * classes + column] += t.count[k];
    }
    free(t.range); free(t.mean); free(t.count); free(t.start); free(t.end);
}

void free_table(table *t)
{
    free(t->range); free(t->mean); free(t->count); free(t->start); free(t->end);
}
