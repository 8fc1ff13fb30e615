// IEEE 1800-2017 clause 7.3: what is written to one member of a union is read by another
module t;
  typedef union { logic [7:0] a; logic [7:0] b; } u_t;
  u_t u;
  initial begin
    u.a = 8'h3c;
    $display("%h", u.b);
  end
endmodule
//> 3c
