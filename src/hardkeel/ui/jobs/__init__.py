"""What runs beside the window: gauges' links, exports, photographs and scans, reporting back by signals."""
