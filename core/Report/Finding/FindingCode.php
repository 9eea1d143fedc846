<?php

declare(strict_types=1);

namespace Ortholex\Core\Report\Finding;

use Ortholex\Core\Fact\Code;

/** What a finding says. */
enum FindingCode: string implements Code
{
    case MotorLost = 'finding.motor_lost';
    case MotorsMisplaced = 'finding.motors_misplaced';
    case MotorWeak = 'finding.motor_weak';
    case WasHit = 'finding.was_hit';
    case SensorGlitched = 'finding.sensor_glitched';
    case RotatedUnasked = 'finding.rotated_unasked';
    case POscillates = 'finding.p_oscillates';
    case DCarriesNoise = 'finding.d_carries_noise';
    case Overshoots = 'finding.overshoots';
    case FallsShort = 'finding.falls_short';
    case AnswersCleanly = 'finding.answers_cleanly';
    case StandingRidge = 'finding.standing_ridge';
    case LoopSwings = 'finding.loop_swings';
    case WrongMagnets = 'finding.wrong_magnets';
    case Leads = 'finding.leads';
    case Lags = 'finding.lags';
    case BreaksOff = 'finding.breaks_off';
    case RowsUnreadable = 'finding.rows_unreadable';
    case GapsInLog = 'finding.gaps_in_log';
}
