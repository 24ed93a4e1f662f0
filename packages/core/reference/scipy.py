"""Makes scipy.json: what scipy makes of one short series, to be held against. Run: python3 scipy.py > scipy.json"""
import json
import sys

sys.path = [place for place in sys.path[1:]]
import numpy
import scipy
from scipy.integrate import cumulative_trapezoid, simpson, trapezoid
from scipy.signal import find_peaks, medfilt, savgol_filter
from scipy.stats import median_abs_deviation, sem

random = numpy.random.default_rng(20240611)
t = numpy.arange(120) * 0.02
x = 0.4 * numpy.sin(9 * t) * numpy.exp(-t / 2) + 0.1 * t + 0.003 * random.standard_normal(t.size)
x = numpy.round(x, 6)


def filtered(window, degree, order):
    return savgol_filter(x, window, degree, deriv=order, delta=0.02, mode="interp").tolist()


peaks, about = find_peaks(x, prominence=0.05 * (x.max() - x.min()))
print(
    json.dumps(
        {
            "source": f"scipy {scipy.__version__}, numpy {numpy.__version__}",
            "interval": 0.02,
            "x": x.tolist(),
            "filters": [
                {"window": w, "degree": d, "order": o, "values": filtered(w, d, o)}
                for w, d, o in [(9, 2, 0), (11, 4, 0), (9, 2, 1), (15, 3, 1), (15, 4, 2), (21, 2, 2)]
            ],
            "median": {"window": 7, "values": medfilt(x, 7).tolist()},
            "integral": trapezoid(x, dx=0.02),
            "simpson": simpson(x, dx=0.02),
            "running": cumulative_trapezoid(x, dx=0.02, initial=0).tolist(),
            "medianOfAll": float(numpy.median(x)),
            "deviation": float(median_abs_deviation(x, scale="normal")),
            "standardError": float(sem(x)),
            "peaks": peaks.tolist(),
        }
    )
)
