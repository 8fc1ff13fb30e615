// IEEE 1800-2017 clause 9.6.1: until all that this process has forked has ended, and nothing deeper
module t;
  logic a = 0, b;
  initial begin
    fork
      #5 $display("five %0t", $time);
      fork
        #9 $display("nine %0t", $time);
      join_none
    join_any
    fork #3 $display("three %0t", $time); join_none
    b <= #20 a;
    wait fork;
    $display("end %0t", $time);
  end
endmodule
//> three 3
//> five 5
//> end 5
//> nine 9
