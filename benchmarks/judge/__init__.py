"""A second judge: reads drawing and program by itself and cuts on a raster, and knows nothing of the proof."""
