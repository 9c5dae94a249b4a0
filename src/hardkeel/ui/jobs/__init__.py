"""What runs beside the window: gauges' links and exports, reporting back by signals."""
