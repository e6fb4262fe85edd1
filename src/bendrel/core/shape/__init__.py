"""The shape of a rigid piece: bend list, corner points, frames and positions along the tube."""
