// IEEE 1800-2017 clause 6.24.1: to a packed structure and from one
module t;
  typedef struct packed { logic [3:0] a; logic [3:0] b; } s_t;
  logic [7:0] v = 8'h7E;
  initial $display("%h %h", s_t'(v), signed'(s_t'(v)) + 4'sd1);
  int y;
  s_t s;
  initial begin
    s = s_t'(v);
    y = int'(s);
    #1 $display("%h %0d", s.b, y);
  end
endmodule
//> 7e 7f
//> e 126
