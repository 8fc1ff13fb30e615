-- IEEE 1076.2: functions of real numbers.
package math_real is
  constant math_e : real := 2.71828182845904523536;
  constant math_1_over_e : real := 0.36787944117144232160;
  constant math_pi : real := 3.14159265358979323846;
  constant math_2_pi : real := 6.28318530717958647693;
  constant math_1_over_pi : real := 0.31830988618379067154;
  constant math_pi_over_2 : real := 1.57079632679489661923;
  constant math_pi_over_3 : real := 1.04719755119659774615;
  constant math_pi_over_4 : real := 0.78539816339744830962;
  constant math_3_pi_over_2 : real := 4.71238898038468985769;
  constant math_log_of_2 : real := 0.69314718055994530942;
  constant math_log_of_10 : real := 2.30258509299404568402;
  constant math_log2_of_e : real := 1.4426950408889634074;
  constant math_log10_of_e : real := 0.43429448190325182765;
  constant math_sqrt_2 : real := 1.41421356237309504880;
  constant math_1_over_sqrt_2 : real := 0.70710678118654752440;
  constant math_sqrt_pi : real := 1.77245385090551602730;
  constant math_deg_to_rad : real := 0.01745329251994329577;
  constant math_rad_to_deg : real := 57.29577951308232087680;
@V ceil floor round trunc sign sqrt cbrt exp log log2 log10 sin cos tan arcsin arccos arctan sinh cosh tanh arcsinh arccosh arctanh
  function @ (x : real) return real;
@E
  function arctan (y : real; x : real) return real;
  function log (x : real; base : real) return real;
  function "mod" (x, y : real) return real;
  function realmax (x, y : real) return real;
  function realmin (x, y : real) return real;
  function "**" (x : integer; y : real) return real;
  function "**" (x : real; y : real) return real;
  procedure uniform (seed1, seed2 : inout positive; x : out real);
end package;
