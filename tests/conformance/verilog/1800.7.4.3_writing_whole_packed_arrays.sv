// IEEE 1800-2017 clause 7.4.3: a packed array may be written, read and compared as a vector
module t;
  bit [2:0][1:0] p = 6'b10_01_11, q;
  initial begin
    q = p;
    q[1] = ~q[1];
    $display("%b %b %b", q, p ^ q, p == 6'h27);
  end
endmodule
//> 101011 001100 1
