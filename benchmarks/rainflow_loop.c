/* The yardstick: the same four-point rainflow, as one would write it in plain C. */
#include <math.h>
#include <stdint.h>
#include <stdlib.h>

int64_t rainflow(const double *samples, int64_t n, int64_t *start, int64_t *end, int64_t *residue, int64_t *left)
{
    double *stack = malloc((n + 1) * sizeof *stack);
    int64_t cycles = 0, depth = 1, last = 0;
    double level = samples[0];
    int rising = 0;
    stack[0] = level;
    residue[0] = 0;
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
        residue[depth++] = last;
        while (depth >= 4) {
            double inner = fabs(stack[depth - 3] - stack[depth - 2]);
            if (inner > fabs(stack[depth - 2] - stack[depth - 1]) || inner > fabs(stack[depth - 4] - stack[depth - 3])) break;
            start[cycles] = residue[depth - 3];
            end[cycles++] = residue[depth - 2];
            stack[depth - 3] = stack[depth - 1];
            residue[depth - 3] = residue[depth - 1];
            depth -= 2;
        }
        last = i; level = value; rising = up;
    }
    free(stack);
    *left = depth;
    return cycles;
}
