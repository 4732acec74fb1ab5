/* Growth of a centre crack in a plate of finite width, cycle by cycle: Walker's law with a threshold. */
#include <math.h>
#include <stdint.h>

double grow(const double *rows, int64_t cycles, double a, double width, double c, double m, double gamma,
            double threshold, double stop)
{
    const double pi = 3.14159265358979323846;
    for (int64_t i = 0; i < cycles; i++) {
        double high = rows[2 * i], low = rows[2 * i + 1];
        if (high <= 0.0)
            continue;
        if (low < 0.0)
            low = 0.0;
        double scale = sqrt(pi * a / cos(pi * a / width));
        double range = scale * (high - low);
        if (range > threshold)
            a += c * pow(range / pow(1.0 - low / high, 1.0 - gamma), m);
        if (a >= stop)
            break;
    }
    return a;
}
