// IEEE 1364-2005 clause 10.4.4: tasks may wait
module t;
  task k;
    ;
  endtask
  function h (input a);
    begin
      k; //! function-task
      h = a;
    end
  endfunction
endmodule
