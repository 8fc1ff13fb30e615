// IEEE 1364-2005 clause 3.5.3: conversion to an integer rounds to the nearest, ties away from zero
module t;
  integer a, b, c, d;
  initial begin
    a = 2.5; b = -2.5; c = 2.4; d = -1.5;
    $display("%0d %0d %0d %0d", a, b, c, d);
  end
endmodule
//> 3 -3 2 -2
