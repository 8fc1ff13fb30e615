// IEEE 1800-2017 clause 11.4.13: and a range the wrong way round is empty
module t;
  logic [3:0] a;
  initial begin
    a = 4'd7;
    $display("%b %b %b %b", a inside {[7:9]}, a inside {[1:7]}, a inside {[9:7]}, !(a inside {0, 15}));
  end
endmodule
//> 1 1 0 1
