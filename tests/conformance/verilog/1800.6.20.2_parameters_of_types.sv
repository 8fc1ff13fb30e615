// IEEE 1800-2017 clause 6.20.2: a parameter with a type converts its value
module t;
  parameter byte A = 300;
  parameter logic [3:0] B = -1;
  localparam int unsigned C = -1;
  typedef struct packed { logic [3:0] h; logic [3:0] l; } s_t;
  localparam s_t S = '{h: 1, l: 2};
  localparam int T [3] = '{5, 6, 7};
  initial begin
    $display("%0d %0d %0d", A, B, C);
    $display("%h %h %0d", S, S.l, T[1]);
  end
endmodule
//> 44 15 4294967295
//> 12 2 6
