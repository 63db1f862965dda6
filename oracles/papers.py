"""A paper in closed form, whose exposure scale and speed are known beforehand."""

import numpy as np


class Paper:
    """A paper in closed form: an S between white and black."""

    def __init__(self, scale, d_max=2.1, mid=0.0):
        self.net, self.mid = d_max - 0.06, mid
        low, high = (np.log(share / (1 - share)) for share in (0.04 / self.net, 0.9))
        self.steep = (high - low) / scale
        self.scale = scale

    def density(self, x):
        return 0.06 + self.net / (1 + np.exp(-self.steep * (np.asarray(x) - self.mid)))

    def at(self, net):
        share = net / self.net
        return self.mid + np.log(share / (1 - share)) / self.steep
