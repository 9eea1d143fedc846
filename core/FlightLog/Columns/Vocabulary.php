<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog\Columns;

/** Words that stand in the names of columns, in the languages they come in, by what they mean. */
final readonly class Vocabulary
{
    public const AXES = [
        'roll' => ['roll', 'rol', 'aileron', 'ail', 'x', 'bank', 'rollen', 'roulis'],
        'pitch' => ['pitch', 'pit', 'elevator', 'ele', 'y', 'nick', 'nicken', 'tangage'],
        'yaw' => ['yaw', 'rudder', 'rud', 'z', 'gier', 'gieren', 'lacet'],
    ];
    public const QUANTITIES = [
        'setpoint' => [
            'setpoint',
            'setpoints',
            'sp',
            'command',
            'commanded',
            'cmd',
            'target',
            'desired',
            'des',
            'demand',
            'demanded',
            'reference',
            'ref',
            'wanted',
            'requested',
            'req',
            'asked',
            'goal',
            'soll',
            'sollwert',
            'consigne',
        ],
        'rate' => ['gyro', 'gyroscope', 'gyr', 'rate', 'rates', 'omega', 'angular', 'rotation', 'angvel', 'w', 'drehrate'],
        'output' => ['motor', 'motors', 'mot', 'output', 'outputs', 'out', 'actuator', 'act', 'servo', 'pwm', 'esc', 'm', 'u'],
        'rpm' => ['rpm', 'rotorspeed'],
        'throttle' => ['throttle', 'thr', 'thrust', 'collective', 'gas'],
        'stick' => ['stick', 'sticks', 'rc', 'channel', 'chan', 'ch', 'receiver', 'rx', 'input'],
        'accel' => ['accel', 'acc', 'accelerometer', 'acceleration', 'accelerations'],
        'battery' => ['battery', 'bat', 'voltage', 'volt', 'volts', 'batt'],
        'current' => ['current', 'amps', 'ampere', 'amperes', 'amperage', 'curr'],
        'time' => ['time', 'timestamp', 'clock', 'elapsed', 't', 'ts', 'zeit', 'temps', 'tiempo', 'tempo'],
    ];
    public const TERMS = [
        'p' => ['p', 'pterm', 'proportional'],
        'i' => ['i', 'iterm', 'integral'],
        'd' => ['d', 'dterm', 'derivative'],
        'ff' => ['ff', 'f', 'feedforward', 'fterm'],
    ];

    /** What the craft does, said of an axis without naming the quantity. */
    public const ACTUAL = ['actual', 'act', 'ist', 'istwert', 'is', 'real', 'response', 'feedback', 'fb', 'mesure'];

    /** Body rates of flight mechanics: p, q and r, where all three are there. */
    public const LETTERS = ['p' => 'roll', 'q' => 'pitch', 'r' => 'yaw'];

    public const RAW = ['raw', 'unfiltered', 'unfilt', 'measured', 'meas', 'prefilter', 'pre', 'before', 'scaled', 'in'];
    public const UNFILTERED = ['unfiltered', 'unfilt', 'prefilter'];
    public const FILTERED = ['filtered', 'filt', 'flt', 'filter', 'post', 'after', 'lpf', 'smoothed', 'smooth', 'clean'];

    /** What is no rotation but how far it is from what was asked. */
    public const ERROR = ['error', 'err', 'deviation', 'delta', 'difference', 'diff', 'fehler', 'erreur'];

    /** Units of rotation. */
    public const OF_ROTATION = ['dps', 'deg', 'degs', 'degrees', 'rad', 'rads', 'mrad', 'mrads', 'radps', 'degps'];

    public const NEUTRAL = [
        's',
        'ms',
        'us',
        'sec',
        'seconds',
        'second',
        'millis',
        'micros',
        'microseconds',
        'milliseconds',
        'dps',
        'deg',
        'degs',
        'rad',
        'rads',
        'per',
        'pct',
        'percent',
        'hz',
        'v',
        'a',
        'g',
        'log',
        'data',
        'value',
        'velocity',
        'vel',
        'speed',
        'signal',
        'axis',
        'pid',
        'term',
        'body',
        'in',
        'of',
        'the',
        'sensor',
        'imu',
        'control',
        'loop',
        'norm',
        'usec',
        'msec',
        'µs',
        'mv',
        'ma',
        'unit',
        'cmd',
        'angular',
        'rate',
        'frame',
    ];

    /** Words that make a lone letter a term of the command. */
    public const OF_TERMS = [
        'pid',
        'term',
        'axis',
        'pterm',
        'iterm',
        'dterm',
        'fterm',
        'feedforward',
        'ff',
        'proportional',
        'integral',
        'derivative',
    ];
}
