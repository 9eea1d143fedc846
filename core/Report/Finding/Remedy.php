<?php

declare(strict_types=1);

namespace Ortholex\Core\Report\Finding;

use Ortholex\Core\Fact\Code;

/** What to try about a finding. */
enum Remedy: string implements Code
{
    case LookAt = 'remedy.look_at';
    case CheckPlaces = 'remedy.check_places';
    case LookOverCraft = 'remedy.look_over_craft';
    case LookAtSensor = 'remedy.look_at_sensor';
    case LogRpm = 'remedy.log_rpm';
    case TurnAxis = 'remedy.turn_axis';
    case LowerP = 'remedy.lower_p';
    case SteadyLoop = 'remedy.steady_loop';
    case LowerDCutoff = 'remedy.lower_d_cutoff';
    case SeeBetterGains = 'remedy.see_better_gains';
    case RaiseP = 'remedy.raise_p';
    case FeelTheFrame = 'remedy.feel_the_frame';
    case FeelTheFrameOnly = 'remedy.feel_the_frame_only';
    case SetMagnets = 'remedy.set_magnets';
    case LowerFeedForward = 'remedy.lower_feed_forward';
    case RaiseFeedForward = 'remedy.raise_feed_forward';
    case FetchAgain = 'remedy.fetch_again';
    case LookAtRecorder = 'remedy.look_at_recorder';
    case SlowerRecorder = 'remedy.slower_recorder';
}
