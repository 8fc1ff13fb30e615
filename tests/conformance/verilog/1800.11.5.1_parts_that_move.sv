// IEEE 1800-2017 clause 11.5.1: `+:` and `-:` take as many digits as they say, upwards or downwards
module t;
  logic [15:0] v = 16'habcd;
  logic [0:15] r = 16'habcd;
  int i = 4;
  initial $display("%h %h %h", v[i +: 4], v[11 -: 8], r[i +: 8]);
endmodule
//> c bc bc
