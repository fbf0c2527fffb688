export { LOOP_AMPLIFIER, amplifiedLoop } from './antenna/amplified-loop';
export { dish, hornGainDbi, waveguide, pointingLossDb, rectangularGuide, apertureReception } from './antenna/aperture';
export { tryDraft, knownDimensions, fitOf, receptionOf, measuredGate } from './antenna/attempt';
export {
  type Gate,
  type BuildStep,
  type StepState,
  stepStates,
  withPermission,
  withEntry,
  wireBuildPlan,
  lawnBuildPlan,
  loopBuildPlan,
} from './antenna/build-plan';
export { CAUTIONS, type CautionId } from './antenna/cautions';
export { closedForm, figure, plainParameter, step } from './antenna/closed-form-kind';
export { deltaLoop } from './antenna/delta-loop';
export {
  dimensionsOf,
  checkDimensions,
  lengthParameter,
  angleParameter,
  countParameter,
  heightParameter,
  conductor,
  fedAt,
  RAD,
} from './antenna/dimensions';
export { type PowerPattern, averagePower, receivingDirectivityDb, CLOSED_PATTERNS } from './antenna/directivity';
export { discone } from './antenna/discone';
export { dishWithConverter } from './antenna/dish';
export { endFedWire } from './antenna/end-fed-wire';
export { fanDipole } from './antenna/fan-dipole';
export { ferriteRod } from './antenna/ferrite-rod';
export { fieldProbeKind } from './antenna/field-probe';
export { flatVDipole } from './antenna/flat-v-dipole';
export { foldedDipole } from './antenna/folded-dipole';
export { fullWaveRoundM, loopModelNeeds } from './antenna/full-wave';
export { groundLaidWire } from './antenna/ground-laid-wire';
export { groundLoop } from './antenna/ground-loop';
export {
  INSULATION_FACTOR,
  END_ROPE_M,
  LEAST_HEIGHT_M,
  dipoleLengthM,
  halfWaveDipole,
} from './antenna/half-wave-dipole';
export { horn } from './antenna/horn';
export {
  INDUCED_EMF_MAX_WAVELENGTHS,
  dipoleImpedance,
  dipoleDirectivity,
  dipoleLossOhm,
  type ResonantDipole,
  resonantDipole,
  dipoleResonanceHz,
  parallelDipoleMutual,
} from './antenna/induced-emf';
export {
  type Design,
  type KindId,
  DEFAULT_DESIGN,
  type Parameter,
  type Dimensions,
  type TrimChoice,
  type CutPiece,
  type DraftFigure,
  type Draft,
  type PlaceRoom,
  type Fit,
  type Validity,
  type Reception,
  type HeadAmplifier,
  type AntennaKind,
} from './antenna/kind';
export { ANTENNA_KINDS, antennaKind, wireModel, startDesign, checkDesign } from './antenna/kinds';
export {
  shortMonopole,
  type FieldProbe,
  fieldProbe,
  type LoopShape,
  loopInductanceH,
  smallLoop,
  SMALL_LOOP_MAX_WAVELENGTHS,
  type LoopAmplifier,
  loopAmplifierFaDb,
  headAmplifierIm2,
} from './antenna/probes';
export {
  RADIAL_FACTOR,
  quarterWaveLengths,
  quarterWaveResonanceHz,
  droopResistanceFactor,
  RADIALS,
  ELEMENT,
  overRadials,
  quarterWave,
} from './antenna/quarter-wave';
export { rectangleBeamDimensions, rectangleBeam } from './antenna/rectangle-beam';
export { squareLoop } from './antenna/square-loop';
export { EARTH_OHM, TERMINATION, REVERSED, RADIAL, EARTH_REMARK, SHARED } from './antenna/terminated-wire';
export { travellingWaveWire } from './antenna/travelling-wave-wire';
export { type TrimProgress, trimToResonance, type DesignGoals, optimiseDesign, modelSwr } from './antenna/trim-model';
export { kindBand, worthAsking, usefulRange } from './antenna/useful-range';
export { vLengthFactor, vResistanceFactor, V_PARAMETERS, vFigures, vDipole } from './antenna/v-dipole';
export { verticalOverRadials } from './antenna/vertical-over-radials';
export { whipOnSurface } from './antenna/whip-on-surface';
export { wireKind, USUAL_PARTS } from './antenna/wire-kind';
export { LINE_OHM, type EquivalentDipole, wireReception } from './antenna/wire-reception';
export { type TrimmedWires, trimmedWires, wireSensitivities } from './antenna/wire-sensitivity';
export { yagi } from './antenna/yagi';
export {
  figureEightNull,
  type BearingLine,
  type BearingFix,
  ELLIPSE_95,
  bearingFix,
  cancellation,
  combining,
} from './bearing/fix';
export { type PatternFigures, patternFigures, farField, reflectionRipple, threeAntennas } from './bearing/pattern';
export { type GainPoint, type BoughtAntenna, readGains, gainsText, boughtReception } from './choose/bought';
export {
  type Sight,
  SIGHT_WORDS,
  type Burden,
  BURDENS,
  type BurdenWeights,
  burdenDb,
  type Restrictions,
  withdrawnBecause,
} from './choose/burden';
export {
  type CandidateSpec,
  kindCandidates,
  wishQuestion,
  emitterQuestion,
  hearingQuestions,
  type Heard,
  type ReadyCandidate,
  readyCandidate,
  candidateFit,
} from './choose/candidate';
export { type Coverage, bandTargets, coverageOf, coverageGaps } from './choose/coverage';
export {
  type ForecastEmitter,
  type ReceiveEnd,
  type ForecastTarget,
  type WorstProduct,
  filterAdvice,
  type TargetForecast,
  LOST_DB,
  type ForecastPlace,
  foldsAt,
  forecastTarget,
  UNUSABLE_DB,
  SERVED_DB,
  type HearingState,
  hearingState,
  overallLossDb,
  overallWeaknessDb,
  orderDb,
} from './choose/forecast';
export {
  type HearingQuestion,
  type Hearing,
  type Unheard,
  hearingKey,
  solveHearing,
  gainToward,
  strongestAzimuthDeg,
  meanGain,
  TRANSFORMERS,
  transferThrough,
  bestTransformer,
} from './choose/hearing';
export {
  type RankView,
  type Candidate,
  type RankRules,
  rankCandidates,
  mayStay,
  heardCount,
  spoiltCount,
  usable,
  schoolsSentence,
  candidateKindName,
} from './choose/rank';
export { type TurningPoint, turningPoints, turningSteps } from './choose/turning';
export {
  type ChoiceState,
  type ChoiceStep,
  type ChoiceVerdict,
  candidateName,
  firstPiece,
  choiceVerdict,
} from './choose/verdict';
export { type Worth, pricePerProvenDb } from './choose/worth';
export {
  CoreError,
  OutOfRangeError,
  QuantityTextError,
  NotConvergedError,
  ShapeError,
  requireRange,
  requirePositive,
} from './errors';
export {
  type StopGoal,
  type PassGoal,
  type FilterQuestion,
  type RealCapacitor,
  type GoalResult,
  type FilterDesign,
  designFilter,
  builtTransfer,
  type Tolerance,
  type FilterYield,
  filterYield,
} from './filter/design';
export { type EllipticSpec, type EllipticShape, ellipticLadder, ellipticLowpass } from './filter/elliptic';
export {
  type Prototype,
  prototype,
  type Branch,
  type LadderSpec,
  scaleOf,
  transformed,
  ladder,
  ladderChain,
  ladderLossDb,
  coilResistance,
  qFrequencyHz,
  bandpassLossRuleDb,
} from './filter/ladder';
export { type NamedPart, namedParts, spiceNetlist } from './filter/netlist';
export { notchTrap, type Stub, coaxStub } from './filter/notch';
export {
  type FilterShape,
  type FilterFamily,
  type FilterSpec,
  prototypeLossDb,
  LEAKAGE_DB,
  filterLossDb,
} from './filter/response';
export { type Scattering, ladderScattering, filterTouchstone } from './filter/scattering';
export { filterName, namedByShape, edgesForBand } from './filter/start';
export {
  type NumberCell,
  type Decimal,
  plainCell,
  readNumberCell,
  hertzOf,
  type DateOrder,
  type MomentCell,
  readMomentCell,
} from './formats/cells';
export { writeCsv } from './formats/csv-out';
export { type FloorReading, LOG_MEANINGS, readMoment, type LogOptions, readFloorCsv } from './formats/floor-csv';
export { PlotFileError, toLonLat, toPlan, writePlot, readPlot } from './formats/geojson';
export { linesOf } from './formats/lines';
export { type Spectrum, SPECTRUM_MEANINGS, readSpectrumCsv } from './formats/spectrum-csv';
export {
  SWEEP_MEANINGS,
  type SweepMeaning,
  type CsvSweep,
  headingOf,
  HIGHEST_SWEEP_HZ,
  frequencyUnit,
  frequencyAt,
  rising,
  readSweepCsv,
  readSweepText,
} from './formats/sweep-csv';
export {
  type TableRow,
  type Table,
  type TableQuestion,
  type TableAnswer,
  TableQuestionError,
  splitLine,
  readTable,
  tableKey,
  firstRows,
  numberAt,
} from './formats/table';
export { type Template, templateOf, templateSvg, templateDxf } from './formats/template';
export {
  type SweepData,
  SweepFileError,
  type TouchstoneParameter,
  type TouchstoneNumbers,
  type TouchstoneUnit,
  MAX_SWEEP_POINTS,
  type TouchstoneOptions,
  TOUCHSTONE_DEFAULTS,
  readOptions,
  readTouchstone,
  type TouchstoneFormat,
  writeTouchstone,
} from './formats/touchstone';
export { type TransferPoint, type NoisePoint, type TwoPort, readTwoPort, thinTransfer } from './formats/two-port';
export {
  leakLevel,
  type SwitchTiming,
  switchingExposure,
  friisCoupling,
  parallelDipoleCoupling,
  type RampBand,
  rampUp,
  meterZeroProves,
  exposureFieldVPerM,
} from './guard/coupling';
export { type GuardInput, type GuardState, type GuardResult, guardInputs } from './guard/coverage';
export { type GuardVerdictState, type GuardVerdict, GUARD_WORDS, guardVerdict, insideNearField } from './guard/verdict';
export {
  type LineLossModel,
  type CableClass,
  CABLE_CLASSES,
  cableClass,
  attenuationDbPer100m,
  lineLoss,
  fitLineLoss,
  type LineSection,
  antennaToShack,
  shackToAntenna,
  swrThroughLoss,
  lossUnderSwr,
  chokeRejection,
  electricalLengthM,
  velocityFactorFromStub,
  lossySectionNoise,
} from './line/coax';
export {
  reflectionOf,
  impedanceOf,
  swrOf,
  gammaOfSwr,
  returnLossDb,
  mismatchLossDb,
  renormalise,
  mismatchUncertainty,
  powerTransfer,
  alongLine,
} from './line/reflection';
export {
  type WoundTransformer,
  magnetisingH,
  transformerCornerHz,
  transformerAt,
  turnsForLoss,
  type LossyCore,
  lossyCore,
  transformedMatch,
  bootstrapLossDb,
} from './line/transformer';
export { type DeviceSwitching, type DeviceEffect, deviceEffects } from './noise/device-survey';
export {
  type FloorStep,
  floorSteps,
  type FloorGroup,
  floorPattern,
  type ClassMedian,
  classMedians,
} from './noise/floor-log';
export {
  type NoiseReading,
  type NoiseState,
  type NoiseVerdict,
  amplifierWords,
  riseOf,
  noiseVerdict,
} from './noise/verdict';
export { besselJ0, besselJ1 } from './numeric/bessel';
export { type Factored, factorInPlace } from './numeric/complex-solve';
export {
  type Complex,
  complex,
  add,
  subtract,
  multiply,
  scale,
  divide,
  magnitude,
  angleDeg,
  fromPolar,
  parallel,
} from './numeric/complex';
export { completeElliptic } from './numeric/elliptic';
export { inverseFourierInPlace } from './numeric/fft';
export { gaussLegendre } from './numeric/gauss-legendre';
export { LDLT_KERNEL } from './numeric/ldlt-kernel';
export { type Matrix, solveLinear, leastSquares, nonNegativeLeastSquares } from './numeric/least-squares';
export { minimise } from './numeric/minimise';
export { type Rational, aaa } from './numeric/rational';
export {
  sineCosineIntegrals,
  logGamma,
  incompleteBeta,
  erfc,
  normalCdf,
  normalQuantile,
  studentCdf,
  studentQuantile,
  betaQuantile,
  bisect,
} from './numeric/special';
export { factorSymmetric } from './numeric/symmetric-solve';
export {
  InvalidStageError,
  type NoiseStage,
  passiveStage,
  activeStage,
  cascadeNoiseFactor,
  noiseTemperatureK,
  type InterceptStage,
  type CascadeIntercepts,
  cascadeIntercepts,
} from './path/cascade';
export {
  type Connector,
  type Adapter,
  readConnector,
  readAdapters,
  connectorText,
  type Joining,
  joinConnectors,
  type Plugged,
  type PlugRow,
  joinRow,
} from './path/connectors';
export {
  type DownConverter,
  downConversion,
  type ConverterChain,
  CONVERTER_ASSUMED,
  converterChain,
} from './path/converter';
export {
  type DcLoad,
  type DcStage,
  type DcAtLoad,
  type DcPath,
  dcPath,
  type DcQuestion,
  type DcFinding,
  dcFeed,
} from './path/dc-path';
export {
  FEATURES,
  type Feature,
  type FeatureRule,
  featureConflicts,
  type Route,
  type RoutingFinding,
  checkRouting,
} from './path/features';
export {
  type SelectiveStage,
  type IntermodResult,
  intermodAtAntenna,
  type ProductKind,
  productsInBand,
} from './path/intermod';
export {
  type ShelfPart,
  type SearchGoal,
  type FoundOrder,
  type SearchResult,
  MOST_PARTS,
  searchOrder,
} from './path/order-search';
export {
  symmetricPad,
  minimumLossPad,
  resistiveSplitter,
  plainTeeLossDb,
  lossAheadCostDb,
  wilkinson,
  biasTee,
  diodeLimiter,
} from './path/pads';
export { type SignalWalk, type StageReport, type PathAnalysis, analysePath, analyseBands } from './path/plan';
export { type PathProduct, type Carrier, carriersOf, productsByStage } from './path/products';
export { type PathReceiver, type PathSignal, type PathQuestion } from './path/question';
export { type ReceiverFigures, type ReceiverKind, RECEIVER_KINDS } from './path/receiver-kinds';
export {
  converterFloor,
  effectiveNoiseFigureDb,
  dynamicRange,
  type AliasResult,
  foldAlias,
  RECOMMENDED_ROOM_DB,
  fullScaleHeadroom,
  type AttenuatorVerdict,
  attenuatorTest,
  EXTERNAL_LIMIT_RISE_DB,
  noiseRise,
  type AmplifierAdvice,
  amplifierAdvice,
  requiredPreampGain,
  requireFrequencyRange,
  preselectionDb,
} from './path/receiver';
export {
  type CardReceiver,
  type SetupCard,
  setupCard,
  frequencyError,
  type SideBand,
  heardAt,
  type GainReading,
  type GainAdvice,
  gainByMeasurement,
} from './path/setup-card';
export {
  type StrongCarrier,
  type SpurSource,
  spurSources,
  productDropDb,
  type PadFinding,
  padFinding,
} from './path/spur-finder';
export {
  STAGE_KINDS,
  type StageKind,
  type StageFigures,
  type FigureSpec,
  STAGE_FIGURES,
  type FigureFault,
  lineStage,
  figureFaults,
  type SplitterForm,
  splitterLossDb,
  limiterFigures,
  figuredStage,
  stageDc,
} from './path/stage-kinds';
export {
  type Mixing,
  type PathStage,
  type ConverterStage,
  type MeasuredPart,
  stageIntercepts,
  compressionDbm,
  stageGainDb,
  frequenciesAlong,
  gainsAlong,
  ASSUMED_NOISE_FIGURE_DB,
  lacksNoiseFigure,
  stageNoise,
  type Conversion,
  frequencyPlan,
} from './path/stages';
export {
  type PathState,
  type JudgedOrder,
  type OrderVerdict,
  type PathVerdict,
  ALIKE_DB,
  orderVerdict,
  snrLossDigits,
  overNoise,
  pathVerdict,
} from './path/verdict';
export {
  type PlanPoint,
  PLOT_KINDS,
  type PlotKind,
  type PlotFeature,
  PLOT_SHAPES,
  PLOT_NAMES,
  leastPoints,
  planDistance,
  stretchesOf,
  planBearingDeg,
  distanceToStretch,
  insideArea,
  featureDistance,
  snapped,
} from './plot/feature';
export {
  plotRoom,
  cableRunM,
  laidLengthM,
  sagM,
  type Finding,
  type LaidNeeds,
  hearsAcross,
  type Layout,
  layoutOf,
  supportFindings,
  EARTH_LIMIT_WAVELENGTHS,
  earthDistance,
} from './plot/layout';
export { type PaddingQuestion, padding, detuningLossDb, qFromDetuning, repeatability } from './resonator/padding';
export {
  type PreferredSeries,
  preferredFarads,
  type CapacitorChoice,
  preferredCapacitors,
  paddingChoices,
} from './resonator/preferred';
export { type CoilFromTwoResonances, coilFromTwoResonances, type TunedCoil, tunedCoil } from './resonator/tuned-coil';
export {
  type Solenoid,
  solenoid,
  rodPermeability,
  tunedCircuit,
  type TuningRange,
  tuningRange,
  couplingWinding,
  type Winding,
  windingFor,
} from './resonator/winding';
export {
  LAYER_HEIGHT_KM,
  LINE_OF_SIGHT_FROM_HZ,
  USUAL_ARRIVAL_DEG,
  type HopMode,
  hopElevationDeg,
  hopModes,
  type WantedPlace,
  type Arrival,
  wantedPosition,
  layerAt,
  midpoint,
  arrivalOf,
} from './site/arrival';
export {
  type Environment,
  ENVIRONMENTS,
  medianFaDb,
  insideStatedRange,
  noisePowerDbm,
  noiseFieldDbuv,
  combinedDecilesDb,
  faExceededDb,
  roughAtmosphericFaDb,
  type NoisePart,
  type ExpectedNoise,
  expectedNoise,
  minimumEfficiency,
  type NoisyAntenna,
  compareAntennas,
} from './site/external-noise';
export {
  type PowerKind,
  toEirpW,
  freeSpaceFieldVPerM,
  fieldDbuv,
  fieldVPerM,
  receivedDbm,
  fieldToPower,
  GROUND_WAVE_BELOW_HZ,
  type EmitterField,
  emitterField,
} from './site/field';
export { type MeasuredFloor, type FloorChain, measuredFaDb, FLOOR_REACH, floorNear } from './site/measured-floor';
export { freeSpaceLossDb, type LookAngle, geostationaryLook, circularOrbit, radioHorizonKm } from './site/orbit';
export {
  ElementsError,
  type OrbitalElements,
  readElements,
  ELEMENTS_OLD_DAYS,
  elementsEpochMs,
  satelliteAt,
  type Pass,
  satellitePasses,
} from './site/passes';
export { LocatorTextError, type Position, locatorOf, positionOf, parsePosition, greatCircle } from './site/place';
export {
  type ScheduledWish,
  type ScheduledSatellite,
  type ListeningWindow,
  lightFavours,
  withinHours,
  listeningWindows,
} from './site/schedule';
export { type SunTimes, sunTimes, daylightOf, nextSunEvent, sunElevationDeg, lightAt } from './site/sun';
export {
  type PatternCut,
  type CurrentStretch,
  type SpotAnalysis,
  FLOOR_DBI,
  spotAnalysis,
  type PatternSurface,
  patternSurface,
  type ModelQuestion,
  type ModelAnswer,
  analyseModel,
} from './solver/analyse-model';
export { type CurrentElements, segmentCurrents, currentElements } from './solver/current-elements';
export {
  type RadiationVector,
  radiation,
  acceptedPowerW,
  gainRatio,
  extentM,
  elevationStepDeg,
  type Peak,
  findPeak,
  radiatedShare,
  lostShare,
  openCircuitVoltage,
} from './solver/far-field';
export { touchM, checkGeometry } from './solver/geometry';
export { type GroundClass, GROUND_CLASSES, groundClass } from './solver/ground-classes';
export { type TableRange, type GroundTable, tableGrid, groundTable, tableReader } from './solver/ground-table';
export { groundPermittivity, imageRange, fillImpedanceMatrix } from './solver/impedance-matrix';
export { SEGMENTS_PER_WAVELENGTH, MAX_SEGMENTS, type CurrentRow, type Mesh, meshOf } from './solver/mesh';
export { type ModelSweep, type Progress, groundTables, sweepModel, finish } from './solver/model-sweep';
export {
  type Point,
  type Insulation,
  type Wire,
  type PlaceOnWire,
  type LumpedLoad,
  type Ground,
  type WireModel,
  GeometryError,
  wireName,
  minus,
  dot,
  along,
  distance,
  wireLengthM,
} from './solver/model';
export { type NearField, nearField, nearFieldPerRootWatt } from './solver/near-field';
export {
  type Placed,
  NEAR_POINTS,
  nearPairInto,
  type Samples,
  samplesOf,
  gaussPoints,
  farPairInto,
} from './solver/pair';
export { type ModelResonance, findResonance } from './solver/resonance';
export {
  type Solution,
  loadImpedance,
  rowCurrent,
  groundTableFor,
  type Factor,
  solveAt,
  inputImpedance,
  transmission,
  maximumGain,
} from './solver/solve';
export { type HalfSpace, sommerfeldIntegrals } from './solver/sommerfeld';
export { wireSurfaceImpedance } from './solver/wire-loss';
export { type ServiceKind, type Band, catalogueFor, bandsAt } from './spectrum/catalogue';
export { type ItuRegion, ituRegionOf } from './spectrum/itu-region';
export { type AbsorptionDip, lossesDb, quantile, absorptionDips } from './sweep/absorption';
export {
  type SweepPoint,
  pointAt,
  indexBelow,
  markerAt,
  type Resonance,
  findResonances,
  type BandRow,
  bandTable,
  decimate,
  unphysicalPoints,
  summariseSweep,
} from './sweep/analyse';
export {
  type AsBuiltId,
  type AsBuiltQuestion,
  type AsBuiltValue,
  type AsBuiltFit,
  type AsBuilt,
  fitAsBuilt,
} from './sweep/as-built';
export { type AveragedSweep, averageSweeps } from './sweep/average';
export {
  dipOf,
  type BenchState,
  type BenchVerdict,
  ON_TARGET_RATIO,
  CUT_WORDS,
  benchVerdict,
  type SealingVerdict,
  sealingVerdict,
} from './sweep/bench-verdict';
export {
  type Standards,
  IDEAL_STANDARDS,
  standardReflections,
  type ErrorTerms,
  solveErrorTerms,
  correctReading,
  interpolationError,
  timeDomainReach,
} from './sweep/calibration';
export { type DipChange, type Cause, type FaultFinding, matchDips, endDistanceM, findFault } from './sweep/compare';
export { type ClaimedMatch, type ClaimAsSwr, checkClaims, disguisedSwr, shackReturnLossDb } from './sweep/consistency';
export {
  type StandardName,
  STANDARD_NAMES,
  type Calibration,
  type CorrectedSweep,
  correctSweep,
  largestPhaseStepDeg,
  calibrationDoubts,
  checkStandard,
} from './sweep/correct';
export { type LineEcho, type DistancePlot, distanceToFault } from './sweep/distance';
export { type AutoMarker, autoMarkers, dipShiftHz, shiftText } from './sweep/markers';
export { type NoisePeak, noisePeak } from './sweep/noise-peak';
export { type PlannedBand, type SweepSegment, POINTS_PER_BAND, type SweepPlan, planSweep } from './sweep/plan';
export { type FeedLine, type MovedSweep, throughLine, takeLineOff } from './sweep/reference-plane';
export {
  trimSensitivity,
  type LengthReading,
  lengthForTarget,
  type NextCut,
  nextCut,
  type TrimTrial,
  type TrimPlan,
  planTrims,
  gettingWorse,
  learnFromTrim,
} from './sweep/trim';
export { binomialLimits, type BlockRatio, blockRatio, snrBandwidth, censoredDifference } from './trial/counts';
export {
  type PairedResult,
  pairedDifferences,
  readingsForHalfWidth,
  pairedPower,
  pairsForPower,
  type SignedRank,
  signedRank,
} from './trial/paired';
export {
  type SurveyReading,
  HEARD_DB,
  SURVEY_SIGNALS,
  type SurveySummary,
  surveySummary,
  surveyRows,
} from './trial/survey';
export {
  type TrialPair,
  type TrialResult,
  type TrialVerdict,
  LEAST_PAIRS,
  trialVerdict,
  firstOfRound,
} from './trial/verdict';
export {
  SPEED_OF_LIGHT_M_PER_S,
  BOLTZMANN_J_PER_K,
  STANDARD_TEMPERATURE_K,
  VACUUM_PERMEABILITY_H_PER_M,
  VACUUM_PERMITTIVITY_F_PER_M,
  FREE_SPACE_IMPEDANCE_OHM,
  THERMAL_NOISE_DBM_PER_HZ,
  DIPOLE_GAIN_DBI,
  COPPER_CONDUCTIVITY_S_PER_M,
} from './units/constants';
export {
  powerRatio,
  powerDb,
  amplitudeRatio,
  amplitudeDb,
  sumPowersDb,
  sumAmplitudesDb,
  wattsToDbm,
  dbmToWatts,
  dbmToVoltsRms,
  voltsRmsToDbm,
} from './units/decibel';
export {
  type ShownQuantity,
  significant,
  fixed,
  showFrequency,
  showLength,
  showPower,
  plain,
  frequencyText,
  lengthText,
  bandText,
  midSentence,
  countText,
} from './units/format';
export { inchText } from './units/inches';
export { type Dimension, type ParseOptions, parseQuantity } from './units/quantity';
export { S_UNIT_DB, s9Dbm, type SReading, dbmToS, sToDbm, dbmToDbMicrovolt, emfToDbm } from './units/s-meter';
export { type Slip, slipOf, levelSlipOf, spanSlipOf, bandSlipOf } from './units/slip';
export { wavelengthM, waveNumberRadPerM } from './units/wavelength';
