<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings\Consistency;

use Ortholex\Core\Fact\Code;

/** What does not go together. */
enum ClashCode: string implements Code
{
    case CutoffAboveLoop = 'clash.cutoff_above_loop';
    case NotchesWithoutFeedback = 'clash.notches_without_feedback';
    case FeedbackWithoutDigitalSignal = 'clash.feedback_without_digital_signal';
    case SignalLongerThanLoop = 'clash.signal_longer_than_loop';
    case SignalAndAnswerLongerThanLoop = 'clash.signal_and_answer_longer_than_loop';
    case IdleBelowEndPoint = 'clash.idle_below_end_point';
    case FullAboveOutputs = 'clash.full_above_outputs';
    case EndPointsApart = 'clash.end_points_apart';
    case NoFeelCurve = 'clash.no_feel_curve';
    case SpanNotRising = 'clash.span_not_rising';
    case NoThrottleCurve = 'clash.no_throttle_curve';
    case ChannelTwice = 'clash.channel_twice';
    case RoleNeedsFlag = 'clash.role_needs_flag';
    case RoleNeedsChoice = 'clash.role_needs_choice';
    case MotorsNotDriven = 'clash.motors_not_driven';
    case PlaceWithoutMotor = 'clash.place_without_motor';
    case MotorDrivenTwice = 'clash.motor_driven_twice';
    case PropsOverlap = 'clash.props_overlap';
    case NoWarningBeforeFlightEnd = 'clash.no_warning_before_flight_end';
    case LoopLoadHigh = 'clash.loop_load_high';
    case LoopLoadTooHigh = 'clash.loop_load_too_high';
}
