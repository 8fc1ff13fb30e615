// IEEE 1364-2005 clause 17.1.1.2: as in C
module t;
  real r;
  initial begin
    r = 3.5;
    $display("|%08.2f|%+6.1f|%-7.1f|%8.1e|", r, r, r, -r);
  end
endmodule
//> |00003.50|  +3.5|3.5    |-3.5e+00|
